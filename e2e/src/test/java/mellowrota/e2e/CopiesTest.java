package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.StandIn;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Copies in an outside calendar: kept true there, and what is changed there comes back. */
public class CopiesTest {

  private static final Duration SOON = Duration.ofSeconds(20);

  private StandIn host;
  private Server server;
  private Api hana;
  private Api ines;
  private long inesId;
  private Account account;
  private Collection work;

  @BeforeClass
  public void begin() throws IOException {
    host = StandIn.start(0);
    account = host.account("ines", "outside-pass-4471");
    work = account.make("work", "Work");
    account.make("home", "Home");
    server =
        Server.started(
            Database.demo(),
            "--mellow.outside.allow=127.0.0.1:" + host.port(),
            "--mellow.copies.wait=0s",
            "--mellow.copies.again-after=50ms",
            "--mellow.copies.again-at-most=2s");
    hana = Api.of(server, "hana");
    ines = Api.of(server, "ines");
    inesId = hana.idOf("people", "Ines Okafor");
    link();
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    server.close();
    host.close();
  }

  private void link() {
    long own = ines.idOf("calendars", "Ines Okafor, own");
    JsonNode tried =
        ines.post(
                "/api/v1/links/try",
                """
                {"address": "%s", "user": "ines", "password": "outside-pass-4471"}
                """
                    .formatted(host.url()))
            .expect(200)
            .json();
    assertThat(tried.get("found").asBoolean()).as(tried.toString()).isTrue();
    assertThat(tried.get("calendars")).hasSize(2);
    ines.post(
            "/api/v1/links",
            """
            {"address": "%s", "user": "ines", "password": "outside-pass-4471", "calendars": [
              {"href": "%s", "writes": %d, "alsoRead": "NOBODY"}]}
            """
                .formatted(host.url(), tried.get("calendars").get(0).get("href").asString(), own))
        .expect(201);
  }

  private long ticket(String title, String due) {
    return hana.record(
        """
        {"title": "%s", "place": 1, "due": {"at": "%s"},
         "people": [{"role": 0, "person": %d}], "details": {"phone": "0555 0142"}}
        """
            .formatted(title, due, inesId));
  }

  private List<Collection.Stored> titled(String title) {
    return work.objects().values().stream().filter(one -> unfolded(one).contains(title)).toList();
  }

  private static String unfolded(Collection.Stored one) {
    return one.text().replace("\r\n ", "");
  }

  private void awaits(String what, String title, int count) {
    try {
      Await.until(what, SOON, () -> titled(title).size() == count);
    } catch (AssertionError late) {
      throw new AssertionError(
          ines.get("/api/v1/links").text() + work.objects().values() + server.log(), late);
    }
  }

  @Test
  public void aTicketComesChangesMovesIsHandedOverAndGoes() {
    long record = ticket("Paddle, stuck; ring \u00c5se", "2026-12-01T13:00");
    awaits("it stands there", "Paddle\\, stuck\\; ring \u00c5se", 1);
    Collection.Stored first = titled("Paddle\\, stuck").get(0);
    assertThat(unfolded(first)).contains("0555 0142").contains("About this copy: ");
    hana.change(record, "{\"title\": \"Paddle freed\"}");
    awaits("it changed there", "Paddle freed", 1);
    assertThat(titled("Paddle freed").get(0).uid()).isEqualTo(first.uid());
    hana.change(record, "{\"due\": {\"at\": \"2026-12-02T15:00\"}}");
    Await.until(
        "it moved there",
        SOON,
        () -> unfolded(titled("Paddle freed").get(0)).contains("20261202T150000"));
    long tam = hana.idOf("people", "Tam Birtles");
    hana.change(record, "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(tam));
    awaits("it is off there", "Paddle freed", 0);
    hana.change(record, "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(inesId));
    awaits("it is there again", "Paddle freed", 1);
    assertThat(titled("Paddle freed").get(0).uid()).isEqualTo(first.uid());
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    awaits("it is off for good", "Paddle freed", 0);
  }

  @Test
  public void whatALeadMovesThereMovesTheRecord() {
    long record = ticket("Moved outside", "2026-12-03T13:00");
    awaits("it stands there", "Moved outside", 1);
    Collection.Stored one = titled("Moved outside").get(0);
    put(one, one.text().replace("20261203T130000", "20261203T160000"));
    again();
    Await.until(
        "the record moved",
        SOON,
        () ->
            hana.get("/api/v1/records/" + record)
                .json()
                .get("due")
                .get("at")
                .asString()
                .startsWith("2026-12-03T16:00"));
  }

  private void put(Collection.Stored one, String text) {
    String name =
        work.objects().entrySet().stream()
            .filter(e -> e.getValue().uid().equals(one.uid()))
            .findFirst()
            .orElseThrow()
            .getKey();
    assertThat(work.put(name, text, before -> true)).isEqualTo(Collection.Outcome.CHANGED);
  }

  private void again() {
    long link = ines.get("/api/v1/links").json().get(0).get("id").asLong();
    ines.post("/api/v1/links/" + link + "/again", "{}").expect(204);
  }
}
