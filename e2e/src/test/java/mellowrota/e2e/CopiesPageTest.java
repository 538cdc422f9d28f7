package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.Faults;
import org.testng.annotations.AfterClass;
import org.testng.annotations.Test;

/** An account linked, tried and proven by its owner; what was changed there decided on the page. */
public class CopiesPageTest extends InBrowser {

  private final Outside outside = Outside.start();

  @Override
  String[] options() {
    return outside.options().toArray(String[]::new);
  }

  @AfterClass(alwaysRun = true)
  public void noHost() {
    outside.close();
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  /** Four screens on a phone, the proof included; what is wrong is said where it was typed. */
  @Test
  public void aWorkerLinksAnAccountOnAPhone() {
    Account account = outside.account("wren");
    Page page = signedIn("wren", ColorScheme.DARK, "/copies");
    page.setViewportSize(390, 844);
    button(page, "Link an account").click();
    assertThat(page.getByText("step 1 of 4")).isVisible();
    page.getByLabel("User name").fill("wren");
    tries(page, "https://nowhere.invalid/", Outside.PASSWORD, "There is no server named");
    tries(page, "https://127.0.0.1:1/", Outside.PASSWORD, "is inside this network");
    tries(page, outside.pagesOfNobodyKnown(), Outside.PASSWORD, "A secure connection to 127.0.0.1");
    tries(page, outside.pages(), Outside.PASSWORD, "No calendars answer there");
    tries(page, outside.host().url(), "wrong", "does not accept this user name and password");
    account.faults().set(Faults.Mode.DEAD, true);
    tries(page, outside.host().url(), Outside.PASSWORD, "The connection ended before the answer.");
    account.faults().set(Faults.Mode.DEAD, false);
    account.faults().set(Faults.Mode.READ_ONLY, true);
    tries(page, outside.host().url(), Outside.PASSWORD, "Connected");
    assertThat(page.getByText("read-only")).isVisible();
    button(page, "Back").click();
    account.faults().set(Faults.Mode.READ_ONLY, false);
    tries(page, outside.host().url(), Outside.PASSWORD, "Connected");
    assertThat(page.getByText("step 2 of 4")).isVisible();
    page.getByLabel("Work: Copy here").click();
    page.getByTitle("Wren Adeyemi, own").last().click();
    button(page, "Preview").click();
    assertThat(page.getByText("step 3 of 4")).isVisible();
    button(page, "Link").click();
    assertThat(page.getByText("step 4 of 4")).isVisible();
    assertThat(page.getByText("sent, changed, read back and removed")).isVisible();
    org.assertj.core.api.Assertions.assertThat(
            page.evaluate("() => document.documentElement.scrollWidth"))
        .as("nothing is wider than the phone")
        .isEqualTo(390);
    button(page, "Done").click();
    assertThat(page.getByText("You decide where your work is copied.")).isVisible();
  }

  private static void tries(Page page, String address, String password, String said) {
    page.getByLabel("Address, server or email address").fill(address);
    page.getByLabel("App password").fill(password);
    page.keyboard().press("Enter");
    assertThat(page.getByText(said)).isVisible();
  }

  @Test
  public void anAccountIsLinkedProvenAndWhatIsChangedThereDecided() {
    Account account = outside.account("ines");
    Collection work = Outside.work(account);
    Page page = signedIn("ines", ColorScheme.LIGHT, "/copies");
    assertThat(page.getByText("No account is linked yet")).isVisible();
    button(page, "Link an account").click();
    page.getByLabel("Address, server or email address").fill(outside.host().url());
    page.getByLabel("User name").fill("ines");
    page.getByLabel("App password").fill("wrong");
    page.keyboard().press("Enter");
    assertThat(page.getByText("does not accept this user name and password")).isVisible();
    page.getByLabel("App password").fill(Outside.PASSWORD);
    page.keyboard().press("Enter");
    assertThat(page.getByText("Connected: 1 calendar found.")).isVisible();
    page.getByLabel("Work: Copy here").click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Ines Okafor, own"))
        .or(page.getByTitle("Ines Okafor, own"))
        .last()
        .click();
    page.getByLabel("Work: Who else reads it?").click();
    page.getByTitle("nobody else").last().click();
    button(page, "Preview").click();
    assertThat(page.getByText("will be sent, soonest work first")).isVisible();
    org.assertj.core.api.Assertions.assertThat(work.objects()).isEmpty();
    button(page, "Link").click();
    assertThat(page.getByText("sent, changed, read back and removed")).isVisible();
    button(page, "Done").click();
    assertThat(page.getByText("You decide where your work is copied.")).isVisible();

    Api hana = Api.of(server, "hana");
    long record =
        hana.record(
            """
            {"title": "Seen on the page", "due": {"at": "2026-12-01T13:00"},
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    Outside.edit(work, "Seen on the page", "Seen on the page", "Changed over there");
    button(page, "Check now").click();
    assertThat(page.getByText("Changed over there")).isVisible();
    button(page, "Restore ours").click();
    Outside.awaits(work, "Seen on the page");
    Page office = signedIn("hana", ColorScheme.DARK, "/records/" + record);
    assertThat(office.getByText("copy in another calendar: sent")).isVisible();
    account.faults().set(Faults.Mode.WRONG_PASSWORD, true);
    hana.change(record, "{\"title\": \"Seen and refused\"}");
    office.navigate(server.url("/copies"));
    assertThat(office.getByText("Links of other people")).isVisible();
    assertThat(office.getByText("The server does not accept the user name and password.").first())
        .isVisible();
  }
}
