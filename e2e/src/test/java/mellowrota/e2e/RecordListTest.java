package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Listing and finding records, against what was made. */
public class RecordListTest {

  private static final List<String> WORDS = List.of("sluice", "paddle", "rope", "lamp", "coping");
  private static final List<String> STATES = List.of("CONFIRMED", "TENTATIVE", "DONE", "DRAFT");

  /** All of these hold this word, so that the demo's own records stay out of the way. */
  private static final String MARK = "zwischenpegel";

  private record Made(
      long id, String title, String state, long place, long lead, String due, String code) {}

  private Api hana;
  private Api ines;
  private long inesId;
  private long tamId;
  private final List<Made> made = new ArrayList<>();
  private final List<Long> places = new ArrayList<>();

  @BeforeClass
  public void make() {
    hana = Api.of(Server.shared(), "hana");
    ines = Api.of(Server.shared(), "ines");
    inesId = hana.idOf("people", "Ines Okafor");
    tamId = hana.idOf("people", "Tam Birtles");
    for (String place : List.of("Osier Weir", "Quill Weir", "Osier Basin")) {
      places.add(hana.idOf("places", place));
    }
    SplittableRandom random = new SplittableRandom(42);
    for (int i = 0; i < 37; i++) {
      make(random, i);
    }
  }

  private void make(SplittableRandom random, int i) {
    String title = WORDS.get(random.nextInt(5)) + " " + WORDS.get(random.nextInt(5)) + " " + MARK;
    String state = STATES.get(random.nextInt(STATES.size()));
    long place = places.get(random.nextInt(places.size()));
    long lead = random.nextBoolean() ? inesId : tamId;
    String due =
        i % 6 == 5
            ? ""
            : "2027-01-%02dT%02d:00".formatted(1 + random.nextInt(5), random.nextInt(24));
    String code = "c" + random.nextInt(100_000, 999_999);
    ObjectNode body = Api.JSON.createObjectNode();
    body.put("title", title).put("state", state).put("place", place);
    if (!due.isEmpty()) {
      body.putObject("due").put("at", due);
    }
    ArrayNode people = body.putArray("people");
    people.addObject().put("role", 0).put("person", lead);
    body.putObject("details").put("gate code", code);
    made.add(new Made(hana.record(body.toString()), title, state, place, lead, due, code));
  }

  private static List<Long> ids(JsonNode page) {
    List<Long> found = new ArrayList<>();
    page.get("items").forEach(item -> found.add(item.get("id").asLong()));
    return found;
  }

  private static List<Long> all(Api api, String query, int limit) {
    List<Long> found = new ArrayList<>();
    String cursor = "";
    do {
      JsonNode page = api.get("/api/v1/records?limit=" + limit + query + cursor).expect(200).json();
      assertThat(page.get("items").size()).isLessThanOrEqualTo(limit);
      found.addAll(ids(page));
      cursor = page.has("next") ? "&cursor=" + page.get("next").asString() : "";
    } while (!cursor.isEmpty());
    return found;
  }

  /** By due time, those without one last; of one time as they were made. */
  private List<Long> wanted(java.util.function.Predicate<Made> which) {
    return made.stream()
        .filter(which)
        .sorted(
            java.util.Comparator.comparing((Made m) -> m.due().isEmpty() ? "9" : m.due())
                .thenComparing(Made::id))
        .map(Made::id)
        .toList();
  }

  @DataProvider
  Object[][] limits() {
    return new Object[][] {{1}, {2}, {7}, {36}, {37}, {200}};
  }

  @Test(dataProvider = "limits")
  public void pagesOfAnySizeTellEachOnceInOrder(int limit) {
    assertThat(all(hana, "&find=" + MARK, limit)).isEqualTo(wanted(m -> true));
  }

  @Test
  public void facetsNarrowTogether() {
    for (String state : STATES) {
      for (long place : places) {
        assertThat(all(hana, "&find=" + MARK + "&state=" + state + "&place=" + place, 50))
            .as(state + " at " + place)
            .isEqualTo(wanted(m -> m.state().equals(state) && m.place() == place));
      }
    }
    assertThat(all(hana, "&find=" + MARK + "&state=DONE,TENTATIVE&person=" + tamId, 50))
        .isEqualTo(
            wanted(m -> List.of("DONE", "TENTATIVE").contains(m.state()) && m.lead() == tamId));
  }

  @Test
  public void everyWordMustBeFoundInAnyCase() {
    for (String one : WORDS) {
      for (String other : WORDS) {
        String find = one.toUpperCase(java.util.Locale.ROOT) + "+" + other + "+" + MARK;
        assertThat(all(hana, "&find=" + find, 50))
            .as(find)
            .isEqualTo(wanted(m -> m.title().contains(one) && m.title().contains(other)));
      }
    }
  }

  @Test
  public void nobodyFindsByWhatTheyMayNotSee() {
    for (Made one : made) {
      List<Long> hers = all(ines, "&find=" + one.code(), 50);
      boolean may = one.lead() == inesId && !one.state().equals("DRAFT");
      assertThat(hers).as(one.toString()).isEqualTo(may ? List.of(one.id()) : List.of());
      assertThat(all(hana, "&find=" + one.code(), 50)).as("codes are the lead's").isEmpty();
    }
  }

  @Test
  public void aWorkerListsWhatTheyMayOpenAndNoDraft() {
    List<Long> hers = all(ines, "&find=" + MARK, 10);
    for (Made one : made) {
      int status = ines.get("/api/v1/records/" + one.id()).status();
      assertThat(hers.contains(one.id())).as(one.toString()).isEqualTo(status == 200);
    }
    assertThat(hers)
        .containsAll(
            wanted(m -> m.lead() == inesId && !m.state().equals("DRAFT") && !m.due().isEmpty()));
  }

  @DataProvider
  Object[][] textsThatMeanThemselves() {
    return new Object[][] {{"100% sure"}, {"under_score"}, {"back\\slash"}, {"o'clock"}, {"Ärger"}};
  }

  @Test(dataProvider = "textsThatMeanThemselves")
  public void signsAreFoundAsTyped(String text) {
    ObjectNode body = Api.JSON.createObjectNode().put("title", text + " " + MARK + "2");
    long id = hana.record(body.toString());
    String find = URLEncoder.encode(text + " " + MARK + "2", StandardCharsets.UTF_8);
    assertThat(all(hana, "&find=" + find, 50)).containsExactly(id);
    String other =
        URLEncoder.encode(
            text.replaceAll("[%_\\\\']", "x") + " " + MARK + "2", StandardCharsets.UTF_8);
    if (!other.equals(find)) {
      assertThat(all(hana, "&find=" + other, 50)).doesNotContain(id);
    }
  }
}
