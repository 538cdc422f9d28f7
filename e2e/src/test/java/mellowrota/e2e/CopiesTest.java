package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import java.util.function.Predicate;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.Faults;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Copies in an outside calendar: kept true there, and what is changed there comes back. */
public class CopiesTest {

  private static final Duration SOON = Duration.ofSeconds(30);

  private Outside outside;
  private Server server;
  private Api hana;
  private Api ines;
  private Api tam;
  private long inesId;
  private long tamId;
  private Account inesAccount;
  private Collection work;
  private Collection tams;
  private Collection other;

  @BeforeClass
  public void begin() {
    outside = Outside.start();
    server = Server.started(Database.demo(), outside.options().toArray(String[]::new));
    hana = Api.of(server, "hana").warned();
    ines = Api.of(server, "ines");
    tam = Api.of(server, "tam");
    inesId = hana.idOf("people", "Ines Okafor");
    tamId = hana.idOf("people", "Tam Birtles");
    inesAccount = outside.account("ines");
    work = Outside.work(inesAccount);
    outside.link(ines, "Ines Okafor, own", inesAccount, "");
    Account tamAccount = outside.account("tam");
    tams = Outside.work(tamAccount);
    outside.link(tam, "Tam Birtles, own", tamAccount, "");
    Account second = outside.account("ines.other");
    other = Outside.work(second);
    outside.link(ines, "Ines Okafor, own", second, ", \"families\": [\"WORK\"]");
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    server.close();
    outside.close();
  }

  /** Led by Ines, supported by Tam. */
  private long ticket(String title, String due) {
    return hana.record(
        """
        {"title": "%s", "place": 1, "due": {"at": "%s"},
         "people": [{"role": 0, "person": %d}, {"role": 1, "person": %d}],
         "details": {"phone": "0555 0142"}}
        """
            .formatted(title, due, inesId, tamId));
  }

  private void due(long record, String local) {
    Await.until(
        "the record is due " + local,
        SOON,
        () -> record(record).get("due").get("at").asString().startsWith(local));
  }

  private JsonNode record(long record) {
    return hana.get("/api/v1/records/" + record).expect(200).json();
  }

  /** What became of a change there, once it is known. */
  private JsonNode change(Api asker, long record, Predicate<JsonNode> which) {
    JsonNode[] found = new JsonNode[1];
    Await.until(
        "the change there is known",
        SOON,
        () -> {
          for (JsonNode one :
              asker.get("/api/v1/outside-changes?record=" + record).expect(200).json()) {
            if (which.test(one)) {
              found[0] = one;
            }
          }
          return found[0] != null;
        });
    return found[0];
  }

  private static Predicate<JsonNode> about(String part, String state) {
    return one ->
        one.get("part").asString().equals(part) && one.get("state").asString().equals(state);
  }

  @Test
  public void aTicketComesChangesMovesIsHandedOverAndGoes() {
    long record = ticket("Paddle, stuck; ring \u00c5se \\\\ Olu", "2026-12-01T13:00");
    String escaped = "Paddle\\, stuck\\; ring \u00c5se \\\\ Olu";
    Collection.Stored first = Outside.awaits(work, escaped).getValue();
    assertThat(Outside.unfolded(first)).contains("0555 0142").contains("About this copy: ");
    hana.change(record, "{\"title\": \"Paddle freed\"}");
    assertThat(Outside.awaits(work, "Paddle freed").getValue().uid()).isEqualTo(first.uid());
    hana.change(record, "{\"due\": {\"at\": \"2026-12-02T15:00\"}}");
    Outside.awaits(work, "DTEND;TZID=Europe/London:20261202T150000");
    hana.change(record, "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(tamId));
    Outside.awaitsNot(work, "Paddle freed");
    hana.change(record, "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(inesId));
    assertThat(Outside.awaits(work, "Paddle freed").getValue().uid()).isEqualTo(first.uid());
    hana.change(record, "{\"state\": \"DONE\"}");
    Outside.awaits(work, "\u2713 ");
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    Outside.awaitsNot(work, "Paddle freed");
  }

  /**
   * A change that comes while a copy is gone through is not written over by what was known of it.
   */
  @Test
  public void whatIsOpenedWhileACopyIsGoneThroughStaysOpen() {
    long record = ticket("Winch oiled", "2026-12-04T13:00");
    Outside.awaits(work, "Winch oiled");
    Database database = server.database();
    String one =
        " where link_calendar = (select id from link_calendar where href = '%s')"
                .formatted(outside.host().url() + "dav/ines/work/")
            + " and entry in (select id from entry where record = %d)".formatted(record);
    Await.until(
        "the copy is done",
        SOON,
        () -> database.query("select 1 from copy" + one + " and due_at is not null").isEmpty());
    String turns = "update link set leased_by = 'nobody', leased_until = now() + interval '%s'";
    database.execute(turns.formatted("1 hour"));
    database.execute("update copy set sent_at = null, due_at = timestamptz 'epoch'" + one);
    database.changing(
        "update copy set wanted = 'of later'" + one,
        () -> {
          database.execute(turns.formatted("-1 hour"));
          Await.until("the copy is gone through", SOON, database::somebodyWaits);
        });
    Await.until(
        "the copy was gone through",
        SOON,
        () -> database.query("select sent_at from copy" + one).get(0) != null);
    assertThat(database.query("select wanted from copy" + one)).containsExactly("of later");
    database.execute("update copy set wanted = written" + one);
  }

  @Test
  public void eachOfTwoCalendarsTakesWhatItIsFor() {
    ticket("In one of two", "2026-12-01T13:00");
    hana.record(
        """
        {"kind": "SHIFT", "title": "In both of them", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2026-12-04T08:00", "end": "2026-12-04T16:00"}]}
        """
            .formatted(inesId));
    Outside.awaits(other, "In both of them");
    Outside.awaits(work, "In both of them");
    Outside.awaits(work, "In one of two");
    assertThat(Outside.saying(other, "In one of two")).isEmpty();
  }

  @Test
  public void whatALeadMovesThereMovesTheRecord() {
    long record = ticket("Moved outside", "2026-12-03T13:00");
    Outside.edit(work, "Moved outside", "20261203T130000", "20261203T160000");
    Outside.again(ines);
    due(record, "2026-12-03T16:00");
    assertThat(change(ines, record, about("TIMES", "TAKEN")).get("theirs").asString())
        .contains("2026-12-03T16:00");
    Await.until(
        "Tam's copy follows",
        SOON,
        () ->
            Outside.saying(tams, "Moved outside")
                .filter(one -> Outside.unfolded(one.getValue()).contains("20261203T160000"))
                .isPresent());
    JsonNode history = hana.get("/api/v1/records/" + record + "/history").expect(200).json();
    assertThat(history.toString()).contains("moved in their own calendar").contains("Ines Okafor");
  }

  /** What would break a limit is not taken from there; it waits for somebody, with why. */
  @Test
  public void whatIsMovedOntoOtherWorkThereIsProposed() {
    String job =
        """
        {"kind": "JOB", "title": "%s", "state": "CONFIRMED", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2026-12-12T%s", "end": "2026-12-12T%s", "zone": "Europe/London"}]}
        """;
    long record = hana.record(job.formatted("Short of other work", inesId, "10:00", "11:00"));
    hana.record(job.formatted("The other work", inesId, "13:00", "14:00"));
    hana.minding("NEVER");
    Outside.edit(work, "Short of other work", "20261212T110000", "20261212T133000");
    Outside.again(ines);
    JsonNode proposal = change(hana, record, about("TIMES", "PROPOSED"));
    assertThat(proposal.toString()).contains("Ines Okafor already has other work");
    assertThat(record(record).get("visits").get(0).get("end").asString()).contains("T11:00");
    String take = "/api/v1/outside-changes/" + proposal.get("id").asLong() + "/take";
    assertThat(hana.post(take, "{}").expect(409).text()).contains("already has other work");
    hana.warned().post(take, "{}").expect(204);
    assertThat(record(record).get("visits").get(0).get("end").asString()).contains("T13:30");
  }

  @Test
  public void whatSupportMovesThereIsProposedAndTakenOrPutBack() {
    long record = ticket("Asked about", "2026-12-03T13:00");
    Outside.edit(tams, "Asked about", "20261203T130000", "20261203T170000");
    Outside.again(tam);
    JsonNode proposal = change(hana, record, about("TIMES", "PROPOSED"));
    assertThat(proposal.get("stays").asBoolean()).isTrue();
    assertThat(record(record).get("due").get("at").asString()).startsWith("2026-12-03T13:00");
    hana.change(record, "{\"title\": \"Asked about it\"}");
    assertThat(Outside.unfolded(Outside.awaits(tams, "Asked about it").getValue()))
        .as("what is proposed stays there, though the title changed")
        .contains("20261203T170000");
    String address = "/api/v1/outside-changes/" + proposal.get("id").asLong();
    hana.post(address + "/take", "{}").expect(204);
    due(record, "2026-12-03T17:00");
    assertThat(hana.post(address + "/take", "{}").expect(409).text()).contains("decided-already");

    Outside.edit(tams, "Asked about it", "20261203T170000", "20261203T180000");
    Outside.again(tam);
    JsonNode second = change(hana, record, about("TIMES", "PROPOSED"));
    tam.post("/api/v1/outside-changes/" + second.get("id").asLong() + "/put-back", "{}")
        .expect(204);
    Await.until(
        "it is put back",
        SOON,
        () ->
            Outside.unfolded(Outside.awaits(tams, "Asked about it").getValue())
                .contains("20261203T170000"));
    due(record, "2026-12-03T17:00");
  }

  @Test
  public void aTitleIsProposedANoteIsTakenAndWhatIsNotOursStays() {
    long record = ticket("Plain speech", "2026-12-03T13:00");
    Outside.edit(
        work,
        "Plain speech",
        "END:VEVENT",
        "COLOR:tomato\r\nX-MINE:kept\r\nBEGIN:VALARM\r\nACTION:DISPLAY\r\n"
            + "TRIGGER:-PT3H\r\nDESCRIPTION:mine\r\nEND:VALARM\r\nEND:VEVENT");
    Outside.edit(work, "Plain speech", "Plain speech", "Other words");
    Outside.edit(
        work, "Other words", "\\n\\nAbout this copy", "\\nkey is with Olu\\n\\nAbout this copy");
    Outside.again(ines);
    JsonNode title = change(ines, record, about("TITLE", "PROPOSED"));
    assertThat(title.get("theirs").asString()).contains("Other words");
    change(ines, record, about("NOTE", "TAKEN"));
    assertThat(record(record).get("details").toString()).contains("key is with Olu");
    hana.change(record, "{\"due\": {\"at\": \"2026-12-03T14:00\"}}");
    Outside.awaits(work, "20261203T140000");
    String text = Outside.unfolded(Outside.awaits(work, "Other words").getValue());
    assertThat(text).contains("COLOR:tomato", "X-MINE:kept", "TRIGGER:-PT3H", "key is with Olu");
  }

  @Test
  public void whatIsTakenOffThereIsProposedOrPutBack() {
    long record = ticket("Thrown away", "2026-12-03T13:00");
    Map.Entry<String, Collection.Stored> one = Outside.awaits(work, "Thrown away");
    work.delete(one.getKey(), before -> true);
    Outside.again(ines);
    JsonNode proposal = change(hana, record, about("DELETED", "PROPOSED"));
    assertThat(Outside.saying(work, "Thrown away")).isEmpty();
    hana.post("/api/v1/outside-changes/" + proposal.get("id").asLong() + "/put-back", "{}")
        .expect(204);
    assertThat(Outside.awaits(work, "Thrown away").getValue().uid())
        .isEqualTo(one.getValue().uid());
  }

  @Test
  public void whatIsMadeToRepeatThereIsPutBackWithAWord() {
    long record = ticket("Again and again", "2026-12-03T13:00");
    Outside.edit(work, "Again and again", "END:VEVENT", "RRULE:FREQ=WEEKLY\r\nEND:VEVENT");
    Outside.again(ines);
    assertThat(change(ines, record, about("REPEATS", "PUT_BACK")).get("words").asString())
        .contains("was restored");
    Outside.awaitsNot(work, "RRULE");
    Outside.awaits(work, "Again and again");
  }

  @DataProvider
  public Object[][] slowerPaths() {
    return new Object[][] {
      {Faults.Mode.NO_SYNC}, {Faults.Mode.NO_CTAG}, {Faults.Mode.NO_ETAG_ON_PUT},
    };
  }

  /** A host that knows less is read by a slower path that is still right. */
  @Test(dataProvider = "slowerPaths", priority = 1)
  public void aHostThatKnowsLessIsReadAllTheSame(Faults.Mode mode) {
    inesAccount.faults().set(Faults.Mode.NO_SYNC, true);
    inesAccount.faults().set(mode, true);
    try {
      String title = "Read by " + mode;
      long record = ticket(title, "2026-12-05T13:00");
      Outside.edit(work, title, "20261205T130000", "20261205T150000");
      Outside.again(ines);
      due(record, "2026-12-05T15:00");
    } finally {
      inesAccount.faults().clear();
    }
  }

  @DataProvider
  public Object[][] troubles() {
    return new Object[][] {
      {Faults.Mode.WRONG_PASSWORD, "PASSWORD"},
      {Faults.Mode.QUOTA, "QUOTA"},
      {Faults.Mode.READ_ONLY, "NO_RIGHT"},
      {Faults.Mode.DEAD, ""},
    };
  }

  /** Nothing is lost by an outage: it says why, and goes when it is over. */
  @Test(dataProvider = "troubles", priority = 1)
  public void anOutageIsToldAndOver(Faults.Mode mode, String fault) {
    inesAccount.faults().set(mode, true);
    String title = "Sent after " + mode;
    long record;
    try {
      record = ticket(title, "2026-12-06T13:00");
      Await.until(
          "it is told",
          SOON,
          () -> {
            for (JsonNode one : ines.get("/api/v1/copies?record=" + record).json()) {
              if (one.get("there").asString().equals("Work") && one.has("fault")) {
                return one.get("fault").asString().contains(fault);
              }
            }
            return false;
          });
      assertThat(Outside.saying(work, title)).isEmpty();
      Outside.awaits(tams, title);
    } finally {
      inesAccount.faults().clear();
    }
    Outside.again(ines);
    Outside.awaits(work, title);
  }

  /** With nothing to write it is a reading that shows that the host is well again. */
  @Test(priority = 1)
  public void whatAiledALinkIsOverOnceItIsRead() {
    inesAccount.faults().set(Faults.Mode.WRONG_PASSWORD, true);
    try {
      Outside.again(ines);
      Await.until("it is told", SOON, () -> ailing(ines));
    } finally {
      inesAccount.faults().clear();
    }
    Outside.again(ines);
    Await.until("it is over", SOON, () -> !ailing(ines));
  }

  private static boolean ailing(Api who) {
    return who.get("/api/v1/links").expect(200).json().valueStream().anyMatch(l -> l.has("fault"));
  }

  /** Wherever an entry of ours stands, it takes nobody's time a second time. */
  @Test
  public void noEntryOfOursTakesTimeInAnybodysCalendar() {
    ticket("Stands in two places", "2026-12-01T13:00");
    String ours = Outside.awaits(work, "Stands in two places").getValue().text();
    Account account = outside.account("tam.home");
    Collection home = Outside.work(account);
    home.put("passed-on.ics", ours, before -> true);
    home.put(
        "own.ics",
        """
        BEGIN:VCALENDAR\r
        VERSION:2.0\r
        PRODID:test\r
        BEGIN:VEVENT\r
        UID:own\r
        DTSTAMP:20261101T000000Z\r
        DTSTART:20261201T180000Z\r
        DTEND:20261201T190000Z\r
        END:VEVENT\r
        BEGIN:VEVENT\r
        UID:whole\r
        DTSTAMP:20261101T000000Z\r
        DTSTART;VALUE=DATE:20261203\r
        END:VEVENT\r
        END:VCALENDAR\r
        """,
        before -> true);
    Outside.link(
        tam,
        """
        {"address": "%1$s", "user": "tam.home", "password": "%2$s", "calendars": [
          {"href": "%1$sdav/tam.home/work/", "readsBusy": true}]}
        """
            .formatted(outside.host().url(), Outside.PASSWORD));
    String busy =
        """
        select coalesce(b.starts::text, b.first_day::text) from busy b
          join link_calendar l on l.id = b.link_calendar
          join link k on k.id = l.link where k.account = 'tam.home' order by 1
        """;
    Await.until("it is read", SOON, () -> !server.database().query(busy).isEmpty());
    assertThat(server.database().query(busy))
        .satisfiesExactly(
            at -> assertThat(at).asString().contains("18:00:00"),
            day -> assertThat(day).asString().contains("2026-12-03"));
    assertThat(wholeDay()).isEqualTo("2026-12-03T00:00:00Z until 2026-12-04T00:00:00Z");
    String terms = "/api/v1/people/%d/terms".formatted(hana.idOf("people", "Tam Birtles"));
    hana.put(terms, "{\"zone\": \"Asia/Kolkata\"}").expect(204);
    assertThat(wholeDay()).isEqualTo("2026-12-02T18:30:00Z until 2026-12-03T18:30:00Z");
    hana.put(terms, "{}").expect(204);
  }

  /** When Tam is busy for a whole day, which is the day where he lives. */
  private String wholeDay() {
    JsonNode busy =
        hana.get("/api/v1/board?from=2026-12-03&until=2026-12-04").expect(200).json().get("busy");
    assertThat(busy.size()).isEqualTo(1);
    return busy.get(0).get("starts").asString() + " until " + busy.get(0).get("ends").asString();
  }

  /** Once more nobody's password is anywhere but at the host. */
  @Test(priority = 2)
  public void nobodyIsToldAPassword() {
    assertThat(ines.get("/api/v1/links").text()).doesNotContain(Outside.PASSWORD);
    assertThat(hana.get("/api/v1/links").text()).doesNotContain("\"ines\"").doesNotContain("/dav/");
    assertThat(server.log()).doesNotContain(Outside.PASSWORD);
    assertThat(server.database().dump()).doesNotContain(Outside.PASSWORD);
  }

  /** A new key seals what an old one sealed, and the account is used on as before. */
  @Test(priority = 2)
  public void anotherKeySealsThePasswordsAnew() throws java.io.IOException {
    java.nio.file.Path keys = server.database().keys();
    String more = java.util.Base64.getEncoder().encodeToString(new byte[32]);
    java.nio.file.Files.writeString(
        keys, java.nio.file.Files.readString(keys) + "2 " + more + "\n");
    Await.until(
        "her passwords are sealed by the new key",
        SOON,
        () -> {
          // Who is at work on a link when the key comes goes on with the old one until it is done.
          Outside.again(ines);
          return server
              .database()
              .query(
                  "select distinct key_id from link where ended_at is null and person = " + inesId)
              .equals(java.util.List.of("2"));
        });
    ticket("After another key", "2026-12-08T13:00");
    Outside.awaits(work, "After another key");
  }

  @Test(priority = 3)
  public void anEndedLinkTakesOffWhatStandsThere() {
    Account account = outside.account("ines.third");
    Collection third = Outside.work(account);
    long link = outside.link(ines, "Ines Okafor, own", account, "");
    ticket("To be taken off", "2026-12-07T13:00");
    Outside.awaits(third, "To be taken off");
    ines.delete("/api/v1/links/" + link).expect(204);
    Await.until("nothing stands there", SOON, () -> third.objects().isEmpty());
    Await.until(
        "the link is gone", SOON, () -> !ines.get("/api/v1/links").text().contains("ines.third"));
  }
}
