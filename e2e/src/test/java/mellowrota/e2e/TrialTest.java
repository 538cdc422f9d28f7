package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * Whoever is tried for a gap is tried with exactly what they would be given, beside all they do.
 */
public class TrialTest extends OnDemo {

  private static final String SPANS =
      """
      [{"weekdays": [1,2,3,4,5,6,7], "from": "06:00", "until": "14:00", "count": 1},
       {"weekdays": [1,2,3,4,5,6,7], "from": "14:00", "until": "22:00", "count": 1},
       {"weekdays": [1,2,3,4,5,6,7], "from": "22:00", "until": "06:00", "count": 1}]
      """;

  @BeforeClass
  public void begin() {
    hana.warned();
  }

  private long nell() {
    return hana.idOf("people", "Nell Ashdown");
  }

  /** Stood round the clock in three shifts. */
  private long duty(String name, String place) {
    return hana.post(
            "/api/v1/duties",
            "{\"name\": \"%s\", \"place\": %d, \"spans\": %s}"
                .formatted(name, hana.idOf("places", place), SPANS))
        .expect(201)
        .json()
        .get("id")
        .asLong();
  }

  private long shift(String title, String place, String start, String end, String people) {
    return hana.record(
        """
        {"kind": "SHIFT", "title": "%s", "place": %d, "state": "CONFIRMED",
         "visits": [{"start": "%s", "end": "%s"}], "people": [%s]}
        """
            .formatted(title, hana.idOf("places", place), start, end, people));
  }

  private static String lead(long person) {
    return "{\"role\": 0, \"person\": %d}".formatted(person);
  }

  private static String asked(String ask, String start, String end) {
    return "/api/v1/cover/who-could?ask=%s&start=%s&end=%s".formatted(ask, start, end);
  }

  private JsonNode answer(String path, long person) {
    for (JsonNode one : hana.get(path).expect(200).json()) {
      if (one.get("person").asLong() == person) {
        return one;
      }
    }
    throw new AssertionError("nothing is said of " + person);
  }

  private static List<String> reasons(JsonNode answer) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : answer.get("reasons")) {
      String figure = one.has("is") ? " " + one.get("is") + " of " + one.get("limit") : "";
      found.add(one.get("why").asString() + figure);
    }
    return found;
  }

  /** Another shift of the same duty is work like any other: sixteen hours at a stretch are told. */
  @Test
  public void otherShiftsOfTheSameDutyCount() {
    String ask = "duty:" + duty("Lamp round", "Osier Weir");
    shift("Lamp round", "Osier Weir", "2027-02-03T06:00", "2027-02-03T14:00", lead(nell()));
    JsonNode next = answer(asked(ask, "2027-02-03T14:00:00Z", "2027-02-03T22:00:00Z"), nell());
    assertThat(reasons(next)).contains("LONGEST 960 of 840");
    JsonNode same = answer(asked(ask, "2027-02-03T06:00:00Z", "2027-02-03T14:00:00Z"), nell());
    assertThat(same.get("verdict").asString()).isEqualTo("NO");
    assertThat(reasons(same)).contains("HERE");
  }

  /** What is short over three shifts is given shift by shift, and any part of one. */
  @Test
  public void aGapOfSeveralShiftsIsGivenByThem() {
    long duty = duty("Pump watch", "Osier Basin");
    String ask = "duty:" + duty;
    JsonNode gap = gap(ask);
    assertThat(gap.get("spans").valueStream().map(span -> span.get("start").asString()).toList())
        .containsSubsequence(
            "2027-02-02T22:00:00Z", "2027-02-03T06:00:00Z", "2027-02-03T14:00:00Z");
    String whole =
        asked(ask, gap.get("spans").get(0).get("start").asString(), "2027-02-03T14:00:00Z");
    assertThat(hana.get(whole).expect(422).text()).contains("/start", "within one shift");
    assertThat(give(ask, "2027-02-03T06:00:00Z", "2027-02-03T22:00:00Z", nell()).expect(422).text())
        .contains("within one shift");
    String part = asked(ask, "2027-02-03T08:00:00Z", "2027-02-03T12:00:00Z");
    assertThat(answer(part, nell()).get("verdict").asString()).isNotEqualTo("NO");
    give(ask, "2027-02-03T06:00:00Z", "2027-02-03T14:00:00Z", nell()).expect(200);
    assertThat(gap(ask).get("end").asString()).isEqualTo("2027-02-03T06:00:00Z");
  }

  private JsonNode gap(String ask) {
    for (JsonNode one :
        hana.get("/api/v1/cover?from=2027-02-03&until=2027-02-04").expect(200).json().get("gaps")) {
      if (one.get("ask").asString().equals(ask)) {
        return one;
      }
    }
    throw new AssertionError("nothing is short of " + ask);
  }

  private Api.Answer give(String ask, String start, String end, long person) {
    return hana.post(
        "/api/v1/cover/give",
        "{\"ask\": \"%s\", \"start\": \"%s\", \"end\": \"%s\", \"person\": %d}"
            .formatted(ask, start, end, person));
  }

  /** A shift that waits and is longer is given whole, so it is tried whole. */
  @Test
  public void aShiftThatWaitsIsTriedWhole() {
    String ask = "duty:" + duty("Gauge watch", "Upper Quill towpath");
    long waits =
        shift("Gauge watch", "Upper Quill towpath", "2027-02-10T05:00", "2027-02-10T15:00", "");
    shift("Other", "Osier Basin", "2027-02-10T04:30", "2027-02-10T05:30", lead(nell()));
    String at = asked(ask, "2027-02-10T06:00:00Z", "2027-02-10T14:00:00Z");
    assertThat(reasons(answer(at, nell()))).contains("DOUBLE");
    long given =
        give(
                ask,
                "2027-02-10T06:00:00Z",
                "2027-02-10T14:00:00Z",
                hana.idOf("people", "Caio Merrin"))
            .expect(200)
            .json()
            .get("record")
            .asLong();
    assertThat(given).isEqualTo(waits);
  }

  /** Who is only informed may be chosen, and is on it as those who do it from then on. */
  @Test
  public void whoOnlyLooksOnMayBeChosen() {
    long job =
        hana.record(
            """
            {"kind": "JOB", "title": "Shore the bank", "state": "CONFIRMED",
             "visits": [{"start": "2027-02-12T08:00", "end": "2027-02-12T12:00"}],
             "wants": {"people": 1}, "people": [{"role": 3, "person": %d}]}
            """
                .formatted(nell()));
    String ask = "record:" + job + "/1";
    String at = asked(ask, "2027-02-12T08:00:00Z", "2027-02-12T12:00:00Z");
    assertThat(reasons(answer(at, nell()))).doesNotContain("HERE");
    give(ask, "2027-02-12T08:00:00Z", "2027-02-12T12:00:00Z", nell()).expect(200);
    JsonNode people = hana.get("/api/v1/records/" + job).json().get("people");
    assertThat(people.size()).isEqualTo(1);
    assertThat(people.get(0).get("role").asInt()).isZero();
    assertThat(reasons(answer(at, nell()))).contains("HERE");
  }

  /** Of two duties at one place and role, a shift that bears the name of one counts for that. */
  @Test
  public void twoDutiesAtOnePostEachCountTheirOwn() {
    String one = "duty:" + duty("North post", "Lock 2, Thornmere Flight");
    String other = "duty:" + duty("South post", "Lock 2, Thornmere Flight");
    shift(
        "South post",
        "Lock 2, Thornmere Flight",
        "2027-02-03T06:00",
        "2027-02-03T14:00",
        lead(hana.idOf("people", "Ravi Thistlewood")));
    assertThat(filled(other)).isEqualTo(1);
    assertThat(filled(one)).isZero();
  }

  /** Whole days are the site's where they are asked for, and everybody's own where they are had. */
  @Test
  public void allDayWorkFillsTheSitesDayAndTakesThePersons() {
    String person = "/api/v1/people/" + nell();
    String terms = person + "/terms";
    hana.put(terms, "{\"zone\": \"Pacific/Auckland\"}").expect(204);
    long job =
        hana.record(
            """
            {"kind": "JOB", "title": "Watch the bank", "state": "CONFIRMED",
             "visits": [{"first": "2027-02-16", "last": "2027-02-16"}], "wants": {"people": 1}}
            """);
    String ask = "record:" + job + "/1";
    String at = asked(ask, "2027-02-16T00:00:00Z", "2027-02-17T00:00:00Z");
    hana.post(person + "/leave", "{\"first\": \"2027-02-17\"}").expect(204);
    // The seventeenth begins in Auckland while it is the sixteenth at the site.
    assertThat(reasons(answer(at, nell()))).doesNotContain("LEAVE");
    for (JsonNode away : hana.get(person + "/times").expect(200).json().get("leave")) {
      if (away.get("first").asString().equals("2027-02-17")) {
        hana.delete(person + "/leave/" + away.get("id").asLong()).expect(204);
      }
    }
    give(ask, "2027-02-16T00:00:00Z", "2027-02-17T00:00:00Z", nell()).expect(200);
    assertThat(
            hana.get("/api/v1/cover?from=2027-02-15&until=2027-02-18")
                .expect(200)
                .json()
                .get("gaps")
                .valueStream()
                .map(one -> one.get("ask").asString()))
        .doesNotContain(ask);
    hana.put(terms, "{}").expect(204);
  }

  /** A shift that begins when an hour comes the second time is given as that hour. */
  @Test
  public void theSecondOfADoubledHourIsGivenAsThatOne() {
    long duty =
        hana.post(
                "/api/v1/duties",
                """
                {"name": "Late lamp", "place": %d, "spans": [
                  {"weekdays": [7], "from": "00:30", "until": "06:00", "count": 1}]}
                """
                    .formatted(hana.idOf("places", "Osier Weir")))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    // The clock goes back at one o'clock UTC: half past one comes at 00:30 and at 01:30.
    for (String from : List.of("2027-10-31T01:30:00Z", "2027-10-31T00:30:00Z")) {
      JsonNode given =
          give("duty:" + duty, from, "2027-10-31T06:00:00Z", nell()).expect(200).json();
      JsonNode visit =
          hana.get("/api/v1/records/" + given.get("record").asLong()).json().get("visits").get(0);
      assertThat(visit.get("starts").asString()).isEqualTo(from);
      assertThat(visit.get("ends").asString()).isEqualTo("2027-10-31T06:00:00Z");
      hana.post("/api/v1/acts/%d/undo".formatted(given.get("act").asLong()), "{}").expect(200);
    }
  }

  /**
   * Nobody who stands there is passed over in silence: each is named with why they do not count.
   */
  @Test
  public void whoIsThereAndDoesNotCountIsNamedWithWhy() {
    String ask = "duty:" + duty("Sluice post", "Lock 4, Thornmere Flight");
    hana.put(
            "/api/v1/duties/" + ask.substring(5),
            """
            {"name": "Sluice post", "place": %d, "skill": "sluice", "spans": %s}
            """
                .formatted(hana.idOf("places", "Lock 4, Thornmere Flight"), SPANS))
        .expect(204);
    long ravi = hana.idOf("people", "Ravi Thistlewood");
    long joss = hana.idOf("people", "Joss Hallard");
    shift(
        "Sluice post",
        "Lock 4, Thornmere Flight",
        "2027-02-03T06:00",
        "2027-02-03T14:00",
        lead(joss) + ", {\"role\": 1, \"person\": %d}".formatted(ravi));
    List<String> told = new ArrayList<>();
    for (JsonNode one : gap(ask).get("uncounted")) {
      told.add(
          one.get("name").asString()
              + " "
              + one.get("why").asString()
              + (one.has("role") ? " " + one.get("role").asString() : ""));
    }
    assertThat(told)
        .containsExactlyInAnyOrder("Joss Hallard SKILL", "Ravi Thistlewood ROLE Support");
  }

  private int filled(String ask) {
    for (JsonNode one :
        hana.get("/api/v1/cover?from=2027-02-03&until=2027-02-04")
            .expect(200)
            .json()
            .get("stretches")) {
      if (one.get("ask").asString().equals(ask)
          && one.get("start").asString().equals("2027-02-03T06:00:00Z")) {
        return one.get("filled").asInt();
      }
    }
    throw new AssertionError("nothing is told of " + ask);
  }
}
