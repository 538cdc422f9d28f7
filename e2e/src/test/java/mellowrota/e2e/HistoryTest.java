package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What was done to a record, to whom it is told, and taking it back. */
public class HistoryTest {

  private Api hana;
  private Api ines;
  private Api tam;
  private long inesId;
  private long tamId;

  @BeforeClass
  public void start() {
    Server server = Server.shared();
    hana = Api.of(server, "hana").warned();
    ines = Api.of(server, "ines");
    tam = Api.of(server, "tam");
    inesId = hana.idOf("people", "Ines Okafor");
    tamId = hana.idOf("people", "Tam Birtles");
  }

  private long ticket(String title) {
    return hana.record(
        """
        {"title": "%s", "due": {"at": "2026-12-03T10:00"},
         "people": [{"role": 0, "person": %d}, {"role": 1, "person": %d}],
         "details": {"gate code": "7070", "phone": "0555 0170"}}
        """
            .formatted(title, inesId, tamId));
  }

  private static List<String> told(Api api, long record) {
    List<String> found = new ArrayList<>();
    for (JsonNode act : api.get("/api/v1/records/" + record + "/history").expect(200).json()) {
      for (JsonNode change : act.get("changes")) {
        found.add(
            change.get("label").asString()
                + ": "
                + change.get("before").asString()
                + " > "
                + change.get("after").asString());
      }
    }
    return found;
  }

  private static JsonNode view(Api api, long record) {
    return api.get("/api/v1/records/" + record).expect(200).json();
  }

  @Test
  public void aChangeIsToldToThoseWhoMaySeeItsDetail() {
    long id = ticket("Told to some");
    hana.change(id, "{\"details\": {\"gate code\": \"8080\"}, \"reason\": \"New padlock\"}");
    hana.change(id, "{\"title\": \"Told to all\"}");
    assertThat(told(ines, id)).as("the lead").contains("Gate code: 7070 > 8080");
    assertThat(told(hana, id))
        .as("the office, which gate codes are not for")
        .contains("Title: Told to some > Told to all", "Phone:  > 0555 0170")
        .noneMatch(line -> line.contains("8080") || line.contains("7070"));
    assertThat(told(tam, id))
        .as("the support")
        .contains("Title: Told to some > Told to all")
        .noneMatch(line -> line.contains("8080") || line.contains("7070"));
  }

  @Test
  public void theReasonIsForTheOfficeAndWhoGaveIt() {
    long id = ticket("With a reason");
    hana.change(id, "{\"title\": \"Changed\", \"reason\": \"Between us\"}");
    assertThat(hana.get("/api/v1/records/" + id + "/history").text()).contains("Between us");
    assertThat(ines.get("/api/v1/records/" + id + "/history").text()).doesNotContain("Between us");
    ines.change(id, "{\"state\": \"DONE\", \"reason\": \"Was easy\"}");
    assertThat(ines.get("/api/v1/records/" + id + "/history").text()).contains("Was easy");
    assertThat(tam.get("/api/v1/records/" + id + "/history").text()).doesNotContain("Was easy");
  }

  @Test
  public void anUndoLeavesWhatSomebodyChangedSinceAndNamesIt() {
    long id = ticket("Before");
    long act = hana.change(id, "{\"title\": \"After\", \"details\": {\"phone\": \"0555 0171\"}}");
    hana.change(id, "{\"details\": {\"phone\": \"0555 0172\"}}");
    JsonNode undone = hana.post("/api/v1/acts/" + act + "/undo", null).expect(200).json();
    assertThat(undone.get("leaves").toString()).isEqualTo("[\"Phone\"]");
    assertThat(undone.get("record").get("title").asString()).isEqualTo("Before");
    assertThat(hana.get("/api/v1/records/" + id).text()).contains("0555 0172");
  }

  /** Whoever is on several visits, in whatever order they were named. */
  @Test
  public void thePeopleOfSeveralVisitsAreTakenBack() {
    long id =
        hana.record(
            """
            {"kind": "JOB", "title": "Two days", "state": "CONFIRMED",
             "visits": [{"start": "2026-12-03T09:00", "end": "2026-12-03T10:00"},
                        {"start": "2026-12-04T09:00", "end": "2026-12-04T10:00"}],
             "people": [{"role": 0, "person": %d}, {"role": 1, "person": %d}]}
            """
                .formatted(inesId, tamId));
    JsonNode before = view(hana, id).get("people");
    long act =
        hana.change(
            id,
            """
            {"people": [{"role": 0, "person": %d, "visit": 2}, {"role": 1, "person": %d}]}
            """
                .formatted(inesId, tamId));
    assertThat(view(hana, id).get("people").size()).isEqualTo(3);
    JsonNode undone = hana.post("/api/v1/acts/" + act + "/undo", "").expect(200).json();
    assertThat(undone.path("leaves")).isEmpty();
    assertThat(view(hana, id).get("people")).isEqualTo(before);
  }

  @Test
  public void anActIsTakenBackOnceAndItsUndoCanBeTakenBackToo() {
    long id = ticket("First");
    long act = hana.change(id, "{\"title\": \"Second\"}");
    long undo =
        hana.post("/api/v1/acts/" + act + "/undo", null).expect(200).json().get("act").asLong();
    hana.post("/api/v1/acts/" + act + "/undo", null).expect(409);
    hana.post("/api/v1/acts/" + undo + "/undo", null).expect(200);
    assertThat(view(hana, id).get("title").asString()).isEqualTo("Second");
  }

  @Test
  public void theSameUndoSentAgainIsAnsweredAndNotDoneAgain() {
    long id = ticket("Once");
    long act = hana.change(id, "{\"title\": \"Twice\"}");
    String path = "/api/v1/acts/" + act + "/undo";
    JsonNode first = hana.post(path, null, "Idempotency-Key", "undo-" + act).expect(200).json();
    hana.change(id, "{\"title\": \"Thrice\"}");
    JsonNode again = hana.post(path, null, "Idempotency-Key", "undo-" + act).expect(200).json();
    assertThat(again.get("act")).isEqualTo(first.get("act"));
    assertThat(again.get("record").get("title").asString()).as("as it now is").isEqualTo("Thrice");
  }

  @Test
  public void undoingTheMakingCallsItOffAndKeepsTheRecord() {
    JsonNode made =
        hana.post(
                "/api/v1/records",
                "{\"title\": \"Made by mistake\", \"due\": {\"date\": \"2026-12-04\"},"
                    + " \"people\": [{\"role\": 0, \"person\": "
                    + inesId
                    + "}]}")
            .expect(201)
            .json();
    long id = made.get("record").get("id").asLong();
    Calendars own = new Calendars(ines);
    assertThat(own.events("Ines Okafor, own", "Made by mistake")).hasSize(1);
    hana.post("/api/v1/acts/" + made.get("act").asLong() + "/undo", null).expect(200);
    assertThat(own.events("Ines Okafor, own", "Made by mistake")).isEmpty();
    assertThat(view(hana, id).get("state").asString()).isEqualTo("CANCELLED");
    assertThat(view(hana, id).get("ref")).isEqualTo(made.get("record").get("ref"));
  }

  @DataProvider
  Object[][] undoers() {
    return new Object[][] {{"hana", 200}, {"ines", 200}, {"tam", 403}, {"wren", 404}};
  }

  /** Ines finished it: the office may take that back, she may, the support may not. */
  @Test(dataProvider = "undoers")
  public void whoMayTakeBackWhatTheLeadDid(String who, int status) {
    long id = ticket("Finished by the lead");
    long act = ines.change(id, "{\"state\": \"DONE\"}");
    Api.of(Server.shared(), who).post("/api/v1/acts/" + act + "/undo", null).expect(status);
    assertThat(view(hana, id).get("state").asString())
        .isEqualTo(status == 200 ? "CONFIRMED" : "DONE");
  }

  @Test
  public void historyOfWhatOneMayNotOpenIsNotThere() {
    long id =
        hana.record(
            "{\"title\": \"Not for Wren\", \"private\": true, \"people\": [{\"role\": 0, \"person\": "
                + inesId
                + "}]}");
    Api wren = Api.of(Server.shared(), "wren");
    for (String path : List.of("", "/history", "/landings")) {
      Api.Answer hidden = wren.get("/api/v1/records/" + id + path).expect(404);
      Api.Answer absent = wren.get("/api/v1/records/99999999" + path).expect(404);
      assertThat(hidden.json().get("detail")).isEqualTo(absent.json().get("detail"));
      assertThat(hidden.json().get("type")).isEqualTo(absent.json().get("type"));
    }
    wren.patch("/api/v1/records/" + id, "{\"title\": \"x\"}", "If-Match", "*").expect(404);
  }

  /** The answer is made from what the act knows; it must be what is read afterwards. */
  @Test
  public void anAnswerIsTheRecordAsItIsReadAfterwards() {
    long id = ticket("Answered");
    String path = "/api/v1/records/" + id;
    String change =
        "{\"title\": \"Answered again\", \"due\": {\"at\": \"2026-12-05T11:00\"}, \"tags\": [\"b\", \"a\"],"
            + " \"details\": {\"phone\": null, \"notes\": \"One\\nTwo\"}, \"place\": null}";
    asReadAfterwards(hana, path, hana.patch(path, change, "If-Match", "*").expect(200));
    asReadAfterwards(
        ines, path, ines.patch(path, "{\"state\": \"DONE\"}", "If-Match", "*").expect(200));
  }

  private static void asReadAfterwards(Api api, String path, Api.Answer answer) {
    Api.Answer read = api.get(path).expect(200);
    assertThat(answer.json().get("record")).isEqualTo(read.json());
    assertThat(answer.header("ETag")).isNotEmpty().isEqualTo(read.header("ETag"));
  }
}
