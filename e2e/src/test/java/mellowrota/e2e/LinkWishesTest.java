package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.Faults;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What people and the house settle about links: looked at first, stopped, decided, waited for. */
public class LinkWishesTest {

  private static final Duration SOON = Duration.ofSeconds(30);

  private Outside outside;
  private Server server;
  private Api hana;
  private Api ines;
  private long inesId;
  private int accounts;

  @BeforeClass
  public void begin() {
    outside = Outside.start();
    // The wait is the house's own, which a test sets.
    List<String> options = new ArrayList<>(outside.options());
    options.remove("--mellow.copies.wait=0s");
    server = Server.started(Database.demo(), options.toArray(String[]::new));
    hana = Api.of(server, "hana");
    ines = Api.of(server, "ines");
    inesId = hana.idOf("people", "Ines Okafor");
  }

  /** Nothing is linked yet, nothing waits, and each decides for themselves. */
  @BeforeMethod
  public void nothingLinked() {
    settle("{\"copiesWait\": 0, \"linksDecidedBy\": \"PEOPLE\"}");
    for (Api one : List.of(hana, ines)) {
      for (JsonNode link : one.get("/api/v1/links").expect(200).json()) {
        if (link.get("mine").asBoolean()) {
          one.delete("/api/v1/links/" + link.get("id").asLong()).expect(204);
        }
      }
    }
    Await.until(
        "all links are ended",
        SOON,
        () -> server.database().query("select id from link where ended_at is null").isEmpty());
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    server.close();
    outside.close();
  }

  private void settle(String body) {
    hana.patch("/api/v1/house", body).expect(204);
  }

  private long ticket(String title) {
    return hana.record(
        """
        {"title": "%s", "due": {"at": "2026-12-01T13:00"},
         "people": [{"role": 0, "person": %d}], "details": {"gate code": "4471 Q"}}
        """
            .formatted(title, inesId));
  }

  private JsonNode link(Api who, long id) {
    for (JsonNode one : who.get("/api/v1/links").expect(200).json()) {
      if (one.get("id").asLong() == id) {
        return one;
      }
    }
    throw new AssertionError("link " + id + " is not told");
  }

  private String decidedFor(Api who, long person) {
    for (JsonNode one : who.get("/api/v1/links/decided").expect(200).json()) {
      if (one.get("person").asLong() == person) {
        return one.get("by").asString();
      }
    }
    throw new AssertionError("nobody says who decides for " + person);
  }

  @Test
  public void aLookTellsWhatWouldComeAndDoesNothing() {
    ticket("Nearest of all");
    Account account = outside.account("ines" + ++accounts);
    account.make("home", "Home").put("a", "UID:a", before -> true);
    long own = ines.idOf("calendars", "Ines Okafor, own");
    String body =
        """
        {"address": "%1$s", "user": "%5$s", "password": "%2$s", "calendars": [
          {"href": "%1$sdav/%5$s/work/", "writes": %3$d, "from": "%4$s", "alsoRead": "NOBODY"},
          {"href": "%1$sdav/%5$s/home/", "readsBusy": true}]}
        """;
    String url = outside.host().url();
    JsonNode look =
        ines.post(
                "/api/v1/links/look",
                body.formatted(url, Outside.PASSWORD, own, "2020-01-01", account.name()))
            .expect(200)
            .json();
    long all = look.get(0).get("copies").asLong();
    assertThat(all).isPositive();
    assertThat(look.get(0).get("nearest").size()).isBetween(1, 5);
    assertThat(look.get(1).get("read").asLong()).isEqualTo(1);
    JsonNode later =
        ines.post(
                "/api/v1/links/look",
                body.formatted(url, Outside.PASSWORD, own, "2099-01-01", account.name()))
            .expect(200)
            .json();
    assertThat(later.get(0).get("copies").asLong()).isZero();
    assertThat(Outside.work(account).objects()).isEmpty();
    assertThat(ines.get("/api/v1/links").expect(200).json().size()).isZero();

    Outside.link(ines, body.formatted(url, Outside.PASSWORD, own, "2020-01-01", account.name()));
    Await.until(
        "as many as were told stand there",
        SOON,
        () -> Outside.work(account).objects().size() == all);
    // What was looked at is what was sent, to the letter.
    for (JsonNode one : look.get(0).get("nearest")) {
      for (String told : List.of("title", "place", "text")) {
        for (String line : one.get(told).asString().split("\n")) {
          assertThat(Outside.saying(Outside.work(account), escaped(line)))
              .as(told + " of " + one)
              .isPresent();
        }
      }
    }
  }

  private static String escaped(String text) {
    return text.replace("\\", "\\\\").replace(",", "\\,").replace(";", "\\;");
  }

  @Test
  public void aClockThatIsOffIsSaid() {
    Account account = outside.account("ines" + ++accounts);
    String body =
        """
        {"address": "%s", "user": "%s", "password": "%s"}
        """
            .formatted(outside.host().url(), account.name(), Outside.PASSWORD);
    server.setClock(Instant.now().toString());
    assertThat(said(body)).isEqualTo("Connected: 1 calendar found.");
    server.setClock(Instant.now().plus(Duration.ofMinutes(20)).toString());
    assertThat(said(body)).containsPattern("The clock of the server is off by (19|20) minutes");
    server.setClock(Demo.NOW);
  }

  private String said(String account) {
    return ines.post("/api/v1/links/try", account).expect(200).json().get("words").asString();
  }

  @Test
  public void aStoppedLinkIsLeftAloneUntilItGoesOn() {
    Account account = outside.account("ines" + ++accounts);
    long id = outside.link(ines, "Ines Okafor, own", account, "");
    ticket("Before the stop");
    Outside.awaits(Outside.work(account), "Before the stop");
    ines.post("/api/v1/links/" + id + "/stop", "{}").expect(204);
    assertThat(link(ines, id).get("stopped").asBoolean()).isTrue();
    Api.of(server, "tam").post("/api/v1/links/" + id + "/go-on", "{}").expect(404);
    // What is under way when it is stopped may end; what comes after is another matter.
    Await.until("nobody has it in hand", SOON, () -> leases(id) == 0);
    ticket("After the stop");
    Await.until(
        "it waits", SOON, () -> link(ines, id).get("calendars").get(0).get("open").asLong() > 0);
    assertThat(Outside.saying(Outside.work(account), "After the stop")).isEmpty();
    ines.post("/api/v1/links/" + id + "/go-on", "{}").expect(204);
    Outside.awaits(Outside.work(account), "After the stop");
  }

  private long leases(long id) {
    return server
        .database()
        .query("select id::text from link where leased_by is not null and id = " + id)
        .size();
  }

  @Test
  public void thePersonOverrulesTheHouseOnceTheirsIsVerifiedAndTheLockOverrulesThem() {
    long own = hana.idOf("calendars", "Ines Okafor, own");
    assertThat(decidedFor(ines, inesId)).isEqualTo("HELD");
    long record = ticket("Copied by whom");
    Account house = outside.account("house" + ++accounts);
    String url = outside.host().url();
    long ofTheHouse =
        Outside.link(
            hana,
            """
            {"address": "%1$s", "user": "%4$s", "password": "%2$s", "ofTheHouse": true,
             "calendars": [{"href": "%1$sdav/%4$s/work/", "writes": %3$d, "alsoRead": "NOBODY"}]}
            """
                .formatted(url, Outside.PASSWORD, own, house.name()));
    Outside.awaits(Outside.work(house), "Copied by whom");
    assertThat(decidedFor(ines, inesId)).isEqualTo("DEFAULT");

    // As long as theirs cannot be verified, the house's copies stay.
    Account mine = outside.account("ines" + ++accounts);
    mine.faults().set(Faults.Mode.QUOTA, true);
    final long hers = outside.link(ines, "Ines Okafor, own", mine, "");
    assertThat(decidedFor(hana, inesId)).isEqualTo("PERSON");
    Await.until("there is no room", SOON, () -> isRefused(record));
    assertThat(link(ines, hers).get("calendars").get(0).get("refused").asLong()).isPositive();
    assertThat(Outside.saying(Outside.work(house), "Copied by whom")).isPresent();
    mine.faults().set(Faults.Mode.QUOTA, false);
    ines.post("/api/v1/links/" + hers + "/again", "{}").expect(204);
    Outside.awaits(Outside.work(mine), "Copied by whom");
    Outside.awaitsNot(Outside.work(house), "Copied by whom");
    assertThat(link(hana, ofTheHouse).get("calendars").get(0).get("overruled").asBoolean())
        .isTrue();

    // What is on its way to theirs brings nothing back to the house's.
    ticket("One more for Ines");
    Outside.awaits(Outside.work(mine), "One more for Ines");
    assertThat(Outside.saying(Outside.work(house), "One more for Ines")).isEmpty();

    settle("{\"linksDecidedBy\": \"HOUSE\"}");
    assertThat(decidedFor(ines, inesId)).isEqualTo("LOCK");
    Outside.awaits(Outside.work(house), "One more for Ines");
    Outside.awaitsNot(Outside.work(mine), "One more for Ines");
    Outside.awaitsNot(Outside.work(mine), "Copied by whom");
    Account another = outside.account("ines.other");
    ines.post(
            "/api/v1/links",
            """
            {"address": "%1$s", "user": "ines.other", "password": "%2$s", "calendars": [
              {"href": "%1$sdav/ines.other/work/", "writes": %3$d}]}
            """
                .formatted(url, Outside.PASSWORD, own))
        .expect(403);
    assertThat(Outside.work(another).objects()).isEmpty();

    settle("{\"linksDecidedBy\": \"PEOPLE\"}");
    Outside.awaits(Outside.work(mine), "One more for Ines");
    Outside.awaitsNot(Outside.work(house), "One more for Ines");
  }

  private boolean isRefused(long record) {
    for (JsonNode one : ines.get("/api/v1/copies?record=" + record).expect(200).json()) {
      if (one.has("fault") && one.get("fault").asString().equals("QUOTA")) {
        return true;
      }
    }
    return false;
  }

  @Test
  public void whatGoesOutIsToldUntilItIsSentOrTakenBack() {
    Account account = outside.account("ines" + ++accounts);
    long link = outside.link(ines, "Ines Okafor, own", account, "");
    Await.until("all that was there is sent", SOON, () -> isSent(link));
    settle("{\"copiesWait\": 300}");
    long record = ticket("Waits for a while");
    Await.until("it waits", SOON, () -> waiting(hana).get("changes").asLong() == 1);
    assertThat(waiting(hana).get("goesOutIn").asLong()).isBetween(200L, 300L);
    assertThat(waiting(hana).get("calendars").asLong()).isEqualTo(1);
    assertThat(waiting(ines).get("changes").asLong()).isEqualTo(1);
    assertThat(waiting(Api.of(server, "tam")).get("changes").asLong()).isZero();
    assertThat(Outside.saying(Outside.work(account), "Waits for a while")).isEmpty();
    hana.post("/api/v1/copies/send-now", "{}").expect(204);
    Outside.awaits(Outside.work(account), "Waits for a while");
    // What is taken off does not wait.
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    Outside.awaitsNot(Outside.work(account), "Waits for a while");
  }

  private boolean isSent(long id) {
    JsonNode calendar = link(ines, id).get("calendars").get(0);
    return calendar.get("sent").asLong() > 0 && calendar.get("open").asLong() == 0;
  }

  private JsonNode waiting(Api who) {
    return who.get("/api/v1/copies/waiting").expect(200).json();
  }

  @Test
  public void whatShouldBeOffAndStandsThereIsListedWithWhatItShows() {
    Account account = outside.account("ines" + ++accounts);
    outside.link(ines, "Ines Okafor, own", account, "");
    long record = ticket("Still to be seen");
    Outside.awaits(Outside.work(account), "Still to be seen");
    Await.until("it is known to stand there", SOON, () -> copy(hana, record, "SENT") != null);
    account.faults().set(Faults.Mode.WRONG_PASSWORD, true);
    hana.change(
        record,
        """
        {"people": [{"role": 0, "person": %d}]}
        """
            .formatted(hana.idOf("people", "Tam Birtles")));
    Await.until(
        "it is asked off and told",
        SOON,
        () -> {
          JsonNode one = copy(hana, record, "ASKED_OFF");
          return one != null && one.has("fault");
        });
    assertThat(names(copy(hana, record, "ASKED_OFF").get("shows"))).containsExactly("title");
    // Kept from the office too, which learns what to replace, not whether there is any.
    assertThat(names(copy(hana, record, "ASKED_OFF").get("mayShow"))).contains("gate code");
    // Whose copy it was is told nothing by it that they may not see by now.
    assertThat(names(copy(ines, record, "ASKED_OFF").get("shows"))).doesNotContain("gate code");
    assertThat(copy(ines, record, "ASKED_OFF").get("mayShow").size()).isZero();
    account.faults().set(Faults.Mode.WRONG_PASSWORD, false);
    Outside.again(ines);
    Outside.awaitsNot(Outside.work(account), "Still to be seen");
  }

  private static List<String> names(JsonNode list) {
    List<String> found = new ArrayList<>();
    list.forEach(one -> found.add(one.asString()));
    return found;
  }

  private static JsonNode copy(Api who, long record, String state) {
    for (JsonNode one : who.get("/api/v1/copies?record=" + record).expect(200).json()) {
      if (one.get("state").asString().equals(state)) {
        return one;
      }
    }
    return null;
  }

  /** The account is gone for good: the link is ended here, and what it left there is listed. */
  @Test
  public void aLinkWhoseAccountIsGoneCanBeLeft() {
    Account account = outside.account("ines" + ++accounts);
    long id = outside.link(ines, "Ines Okafor, own", account, "");
    long record = ticket("Left behind there");
    Outside.awaits(Outside.work(account), "Left behind there");
    Await.until("it is known to stand there", SOON, () -> copy(hana, record, "SENT") != null);
    account.faults().set(Faults.Mode.DEAD, true);
    hana.change(
        record,
        "{\"private\": true, \"people\": [{\"role\": 0, \"person\": %d}]}"
            .formatted(hana.idOf("people", "Tam Birtles")));
    ines.delete("/api/v1/links/" + id).expect(204);
    String standing = "/api/v1/links/" + id + "/standing";
    String listed = ines.get(standing).expect(200).text();
    // It is Tam's alone by now: that something stands there is told, no more.
    assertThat(listed).contains("\"title\"").doesNotContain("Left behind there");
    for (Api other : List.of(Api.of(server, "tam"), hana)) {
      other.get(standing).expect(404);
      other.post("/api/v1/links/" + id + "/leave", "{}").expect(404);
    }
    assertThat(ines.post("/api/v1/links/" + id + "/leave", "{}").expect(200).text())
        .isEqualTo(listed);
    assertThat(ines.get("/api/v1/links").expect(200).json().size()).isZero();
    assertThat(Outside.saying(Outside.work(account), "Left behind there")).isPresent();
    ines.get(standing).expect(404);
    // Nothing of it is tried any more, and its calendar is free for another link.
    account.faults().clear();
    outside.link(ines, "Ines Okafor, own", account, "");
  }

  /** Left off there it stays off, whatever becomes of it here, until somebody puts it back. */
  @Test
  public void whatIsLeftOffStaysOff() {
    Account account = outside.account("ines" + ++accounts);
    outside.link(ines, "Ines Okafor, own", account, "");
    long record = ticket("Thrown out there");
    Map.Entry<String, Collection.Stored> stands =
        Outside.awaits(Outside.work(account), "Thrown out there");
    Await.until("it is known to stand there", SOON, () -> copy(hana, record, "SENT") != null);
    Outside.work(account).delete(stands.getKey(), before -> true);
    JsonNode[] change = new JsonNode[1];
    Await.until(
        "its going is told",
        SOON,
        () -> {
          Outside.again(ines);
          for (JsonNode one :
              ines.get("/api/v1/outside-changes?record=" + record).expect(200).json()) {
            change[0] = one;
          }
          return change[0] != null;
        });
    ines.post("/api/v1/outside-changes/" + change[0].get("id").asLong() + "/take", "{}");
    Outside.again(ines);
    Await.until(
        "it is off", SOON, () -> copy(ines, record, "TAKEN_OFF_THERE") != null || isOff(record));
    assertThat(Outside.saying(Outside.work(account), "Thrown out there")).isEmpty();
    hana.change(record, "{\"title\": \"Thrown out and changed\"}");
    ticket("Another one beside it");
    Outside.awaits(Outside.work(account), "Another one beside it");
    assertThat(Outside.saying(Outside.work(account), "Thrown out")).isEmpty();
  }

  private boolean isOff(long record) {
    return ines.get("/api/v1/copies?record=" + record).expect(200).json().isEmpty();
  }

  @Test
  public void whatTheHouseCannotSettleSoIsToldAtItsField() {
    for (String[] one :
        new String[][] {
          {"{\"copiesWait\": 301}", "/copiesWait"},
          {"{\"copiesWait\": \"soon\"}", "/copiesWait"},
          {"{\"readingInterval\": 59}", "/readingInterval"},
          {"{\"linksDecidedBy\": \"NOBODY\"}", "/linksDecidedBy"},
        }) {
      assertThat(hana.patch("/api/v1/house", one[0]).expect(422).text()).contains(one[1]);
    }
    ines.patch("/api/v1/house", "{\"copiesWait\": 1}").expect(403);
    settle("{\"copiesWait\": 90, \"readingInterval\": 600}");
    JsonNode house = hana.get("/api/v1/house").expect(200).json();
    assertThat(house.get("copiesWait").asInt()).isEqualTo(90);
    assertThat(house.get("readingInterval").asInt()).isEqualTo(600);
  }
}
