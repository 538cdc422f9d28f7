package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * What is in somebody's way is theirs and their office's to know: in worlds that differ only in it,
 * a trial, a refused save, a hand-over and a swap answer anybody else word for word alike; and who
 * may know is told apart.
 */
public class TrialTwinsTest extends OnDemo {

  private static final String DAY = "2028-07-12";

  private long caio;
  private long ines;
  private long jory;
  private long tam;
  private long upperQuill;

  @BeforeClass
  public void begin() {
    caio = hana.idOf("people", "Caio Merrin");
    ines = hana.idOf("people", "Ines Okafor");
    jory = hana.idOf("people", "Jory Penhale");
    tam = hana.idOf("people", "Tam Birtles");
    upperQuill = hana.idOf("teams", "Upper Quill crew");
  }

  /** Something of Caio's at that time, and how it is taken away again. */
  private interface Secret {
    Runnable put(TrialTwinsTest t);
  }

  private record Named(String name, Secret secret) {
    @Override
    public String toString() {
      return name;
    }
  }

  private static Secret work(String kind, String title, int from, int until, String more) {
    return t -> {
      long id =
          t.hana.record(
              """
              {"kind": "%s", "title": "%s", "state": "CONFIRMED", "private": true, %s
               "people": [{"role": 0, "person": %d}],
               "visits": [{"start": "%sT%02d:00", "end": "%sT%02d:00", "zone": "Europe/London"}]}
              """
                  .formatted(kind, title, more, t.caio, DAY, from, DAY, until));
      return () -> t.hana.change(id, "{\"state\": \"CANCELLED\"}");
    };
  }

  private static Secret leave(String more) {
    return t -> {
      String path = "/api/v1/people/%d/leave".formatted(t.caio);
      t.hana.post(path, "{\"first\": \"%s\"%s}".formatted(DAY, more)).expect(204);
      return () -> t.hana.delete(path + "/" + t.lastLeave()).expect(204);
    };
  }

  private Runnable gone() {
    String path = "/api/v1/people/%d/terms".formatted(caio);
    hana.put(path, "{\"lastDay\": \"2028-07-01\"}").expect(204);
    return () -> hana.put(path, "{\"lastDay\": null}").expect(204);
  }

  private long lastLeave() {
    JsonNode all =
        hana.get("/api/v1/people/%d/times".formatted(caio)).expect(200).json().get("leave");
    for (JsonNode one : all) {
      if (one.get("first").asString().equals(DAY)) {
        return one.get("id").asLong();
      }
    }
    throw new AssertionError("no leave on " + DAY);
  }

  private static List<Named> secrets() {
    return List.of(
        new Named("a job", work("JOB", "Secret weir", 8, 12, "\"place\": 2,")),
        new Named("another job", work("JOB", "Hidden sluice", 9, 11, "\"place\": 3,")),
        new Named("a shift over it all", work("SHIFT", "Covert watch", 6, 18, "")),
        new Named(
            "two hours of it", work("JOB", "Quiet survey", 10, 12, "\"tags\": [\"veiled\"],")),
        new Named("leave", leave("")),
        new Named("sick", leave(", \"sick\": true")),
        new Named("leave of hours", leave(", \"from\": \"09:30\", \"until\": \"10:30\"")),
        new Named("gone by then", TrialTwinsTest::gone));
  }

  /** Who asks, of work of theirs, without office rights on Caio. */
  @DataProvider
  Object[][] askers() {
    return new Object[][] {{"ines"}, {"marguerite"}, {"tam"}};
  }

  /** Who leads the work of an asker. */
  private long lead(String asker) {
    return switch (asker) {
      case "ines" -> ines;
      case "tam" -> tam;
      default -> jory;
    };
  }

  private long theirs(String asker) {
    return hana.record(
        """
        {"kind": "JOB", "title": "Work of %s", "state": "CONFIRMED", "team": %d,
         "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%sT09:00", "end": "%sT12:00", "zone": "Europe/London"}]}
        """
            .formatted(asker, upperQuill, lead(asker), DAY, DAY));
  }

  /** Everything by which Caio could come to that work. */
  private Map<String, String> answers(Api api, long record, long lead) {
    String both =
        "{\"people\": [{\"role\": 0, \"person\": %d}, {\"role\": 1, \"person\": %d}]}"
            .formatted(lead, caio);
    String made =
        """
        {"kind": "JOB", "title": "Made", "state": "CONFIRMED", "team": %d,
         "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%sT09:00", "end": "%sT12:00", "zone": "Europe/London"}]}
        """
            .formatted(upperQuill, caio, DAY, DAY);
    String seat = "\"record\": %d, \"visit\": 1".formatted(record);
    String of = "record=%d&visit=1".formatted(record);
    Map<String, String> found = new LinkedHashMap<>();
    String trial = "{\"record\": %d, \"change\": %s}".formatted(record, both);
    found.put("try", said(api.post("/api/v1/cover/trial", trial)));
    found.put("try new", said(api.post("/api/v1/cover/trial", "{\"change\": %s}".formatted(made))));
    found.put("save", said(api.patch("/api/v1/records/" + record, both, "If-Match", "*")));
    found.put("make", said(api.post("/api/v1/records", made)));
    found.put("take over", said(api.get("/api/v1/cover/who-could-take?" + of)));
    found.put(
        "hand over",
        said(
            api.post(
                "/api/v1/cover/hand-over",
                "{%s, \"from\": %d, \"to\": %d}".formatted(seat, lead, caio))));
    found.put("swaps", said(api.get("/api/v1/cover/swaps?%s&person=%d".formatted(of, lead))));
    found.put(
        "when",
        said(
            api.get(
                "/api/v1/cover/when-could?minutes=60&from=%s&until=2028-07-13&person=%d"
                    .formatted(DAY, caio))));
    found.put(
        "left",
        said(
            api.get("/api/v1/cover/left?person=%d&from=%s&until=2028-07-13".formatted(caio, DAY))));
    return found;
  }

  private static String said(Api.Answer answer) {
    return answer.status() + answer.text().replaceAll("\"request\":\"[0-9a-f]+\"", "");
  }

  @Test(dataProvider = "askers")
  public void whateverIsInTheWayIsToldAlike(String asker) {
    Api api = Api.of(server, asker);
    long lead = lead(asker);
    long record = theirs(asker);
    List<Map<String, String>> all = new ArrayList<>();
    for (Named one : secrets()) {
      Runnable away = one.secret().put(this);
      all.add(answers(api, record, lead));
      away.run();
    }
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    all.get(0)
        .forEach(
            (how, answer) -> {
              for (int i = 1; i < all.size(); i++) {
                assertThat(all.get(i).get(how))
                    .as("%s, %s: %s", asker, how, secrets().get(i))
                    .isEqualTo(answer);
              }
            });
    assertThat(all.get(0).get("save")).as("what they are told").startsWith("409");
    assertThat(all.get(0).get("save")).contains("Caio Merrin can’t be given this");
    assertThat(all.toString())
        .doesNotContain("Secret", "Hidden", "Covert", "Quiet", "veiled", "sick", "on leave");
  }

  /** The control: who answers for all of them is told each by what it is. */
  @Test
  public void theCoordinatorIsToldThemApart() {
    long record = theirs("ines");
    List<String> all = new ArrayList<>();
    for (Named one : secrets()) {
      Runnable away = one.secret().put(this);
      all.add(answers(hana, record, ines).get("try"));
      away.run();
    }
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    assertThat(all).doesNotHaveDuplicates();
    assertThat(all.get(0)).contains("already has other work", "Secret weir");
    assertThat(all.get(4)).contains("is on leave");
  }
}
