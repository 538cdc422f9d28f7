package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What is told about an entry is cut for whoever asks by the same face (SIGHT 8). */
public class ToldOfEntriesTest extends OnDemo {

  private Api outsider;
  private long tam;

  @BeforeClass
  public void share() {
    tam = hana.warned().idOf("people", "Tam Birtles");
    Map<String, Api> some = new LinkedHashMap<>();
    long marina = People.invited(server, hana, "Basin Moorings", "OUTSIDE", some);
    outsider = some.get("Basin Moorings");
    long share =
        hana.post(
                "/api/v1/shares",
                "{\"calendar\": %d, \"reader\": %d, \"level\": \"ALL\"}"
                    .formatted(hana.idOf("calendars", "Tam Birtles, own"), marina))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    outsider.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
  }

  private long job() {
    return hana.record(
        """
        {"kind": "JOB", "title": "With margins", "state": "CONFIRMED", "place": 2,
         "visits": [{"start": "2027-02-03T10:00", "end": "2027-02-03T12:00", "before": 45,
          "after": 30}], "people": [{"role": 0, "person": %d}]}
        """
            .formatted(tam));
  }

  @Test
  public void whereItLandsTellsAnOutsiderNoMargins() {
    long job = job();
    String address = "/api/v1/records/" + job + "/landings";
    assertThat(hana.get(address).expect(200).text()).contains("T09:15");
    String told = outsider.get(address).expect(200).text();
    assertThat(told).contains("T10:00").contains("T12:00");
    assertThat(told).doesNotContain("T09:15").doesNotContain("T12:30");
  }

  @Test
  public void aLookCountsADetailThatTheOfficeMayNotSeeFilledOrNot() {
    long plain = hana.record("{\"title\": \"Nothing kept\"}");
    long before = counted("gate code");
    hana.change(plain, "{\"details\": {\"gate code\": \"hook 12\"}}");
    assertThat(counted("gate code")).isEqualTo(before);
    long quotes = counted("contact");
    hana.change(plain, "{\"details\": {\"contact\": \"D. Osei\"}}");
    assertThat(counted("contact")).as("what it may see is counted").isEqualTo(quotes + 1);
  }

  /** On how many records the look says that this detail would be for others. */
  private long counted(String detail) {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    for (JsonNode one : set.get("details")) {
      if (one.get("key").asString().equals(detail)) {
        ((ObjectNode) one).set("for", Api.JSON.readTree("{\"roles\": [0, 1, 2, 3]}"));
      }
    }
    return hana.post("/api/v1/rules/look", set.toString())
        .expect(200)
        .json()
        .get("readers")
        .get(0)
        .get("records")
        .asLong();
  }

  @Test
  public void aDetailThatDoesNotApplyIsOnNoPage() {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    for (JsonNode one : set.get("details")) {
      if (one.get("key").asString().equals("parts")) {
        ((ObjectNode) one).set("states", Api.JSON.readTree("[\"DONE\"]"));
      }
    }
    ReleasesTest.take(hana, set);
    long job = job();
    hana.change(job, "{\"details\": {\"parts\": \"hinge pins\"}}");
    assertThat(hana.get("/api/v1/records/" + job).text()).doesNotContain("hinge pins");
    assertThat(hana.get("/api/v1/records?find=hinge").json().get("items")).isEmpty();
    hana.change(job, "{\"state\": \"DONE\"}");
    assertThat(hana.get("/api/v1/records/" + job).text()).contains("hinge pins");
    assertThat(hana.get("/api/v1/records?find=hinge").json().get("items")).hasSize(1);
  }
}
