package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.Map;
import org.testng.annotations.Test;

/** History judges <i>then</i> by what held at that act, not by today's crew (SIGHT 9). */
public class SeenThenTest extends OnDemo {

  private static final String NEXT_DAY = "2026-11-26T09:00:00Z";

  private static String history(Api api, long record) {
    // Without when it was: a moment may hold any digits.
    return api.get("/api/v1/records/" + record + "/history")
        .expect(200)
        .text()
        .replaceAll("\"at\":\"[^\"]*\"", "");
  }

  @Test
  public void anAccountThatGrewTellsNothingOfBefore() {
    Map<String, Api> some = new LinkedHashMap<>();
    long person = People.invited(server, hana, "Orla Fenn", "HOUSE", some);
    long record =
        hana.record(
            "{\"title\": \"Priced\", \"details\": {\"quote\": \"101\"}, \"people\":"
                + " [{\"role\": 1, \"person\": %d}]}".formatted(person));
    hana.change(record, "{\"details\": {\"quote\": \"202\"}}");
    hana.patch("/api/v1/people/" + person, "{\"right\": \"COORDINATOR\"}").expect(204);
    hana.change(record, "{\"details\": {\"quote\": \"303\"}}");
    assertThat(history(some.get("Orla Fenn"), record)).contains("303").doesNotContain("101");
    assertThat(history(hana, record)).contains("101").contains("202").contains("303");
  }

  @Test
  public void whoJoinedATeamLaterSeesNothingOfItsDaysBefore() {
    Map<String, Api> some = new LinkedHashMap<>();
    long person = People.invited(server, hana, "Ned Larch", "HOUSE", some);
    long team = hana.idOf("teams", "Thornmere crew");
    long record =
        hana.record(
            "{\"title\": \"Of the team\", \"details\": {\"gate code\": \"111\"}, \"people\":"
                + " [{\"role\": 0, \"team\": %d}]}".formatted(team));
    hana.change(record, "{\"details\": {\"gate code\": \"222\"}}");
    server.setClock(NEXT_DAY);
    try {
      hana.post("/api/v1/teams/" + team + "/members", "{\"person\": " + person + "}").expect(204);
      Api joined = some.get("Ned Larch");
      assertThat(joined.get("/api/v1/records/" + record).expect(200).text()).contains("222");
      hana.change(record, "{\"details\": {\"gate code\": \"333\"}}");
      assertThat(history(joined, record)).contains("333").doesNotContain("111");
    } finally {
      server.setClock(Demo.NOW);
    }
  }

  @Test
  public void aDraftsHistoryIsForOfficeAndItsAuthor() {
    Api ines = Api.of(server, "ines");
    long record =
        hana.record(
            """
            {"kind": "JOB", "title": "Drafted", "details": {"notes": "first thoughts"},
             "people": [{"role": 1, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    hana.change(record, "{\"details\": {\"notes\": \"second thoughts\"}}");
    hana.change(record, "{\"state\": \"CONFIRMED\"}");
    hana.change(record, "{\"details\": {\"notes\": \"as it is done\"}}");
    assertThat(history(ines, record)).contains("as it is done").doesNotContain("first thoughts");
    assertThat(history(hana, record)).contains("first thoughts");
  }
}
