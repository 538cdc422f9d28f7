package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * The line that finds against a slow filter: each asker's whole list, gone through record by record
 * by what they see of each. It is Wednesday 25 November 2026, 09:00.
 */
public class FindingTest extends OnDemo {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");
  private static final Instant NOW = Instant.parse(Demo.NOW);

  private final Map<String, Api> askers = new LinkedHashMap<>();
  private final Map<String, List<JsonNode>> seen = new LinkedHashMap<>();
  private int found;

  @BeforeClass
  public void wholeLists() {
    for (String who : List.of("hana", "ines", "marguerite")) {
      askers.put(who, Api.of(server, who));
      seen.put(who, walk(askers.get(who), "", 200));
    }
    assertThat(seen.get("hana").size()).isGreaterThan(seen.get("ines").size());
  }

  private static List<JsonNode> walk(Api api, String query, int limit) {
    List<JsonNode> all = new ArrayList<>();
    String cursor = "";
    do {
      JsonNode page = api.get("/api/v1/records?limit=" + limit + query + cursor).expect(200).json();
      page.get("items").forEach(all::add);
      cursor = page.has("next") ? "&cursor=" + page.get("next").asString() : "";
    } while (!cursor.isEmpty());
    return all;
  }

  // ---- The slow filter -------------------------------------------------------------------------

  private static Predicate<JsonNode> words(String... all) {
    return record ->
        Stream.of(all)
            .allMatch(
                word ->
                    texts(record).anyMatch(text -> text.toLowerCase(Locale.ROOT).contains(word)));
  }

  private static Stream<String> texts(JsonNode record) {
    List<String> found = new ArrayList<>();
    found.add(record.path("ref").asString(""));
    found.add(record.path("title").asString(""));
    record.path("details").forEach(one -> found.add(one.path("value").asString("")));
    Stream.concat(Stream.of(record.path("place")), record.path("uses").valueStream())
        .forEach(
            place -> {
              found.add(place.path("name").asString(""));
              found.add(place.path("code").asString(""));
            });
    record.path("tags").forEach(one -> found.add(one.asString()));
    record
        .path("people")
        .valueStream()
        .filter(one -> one.has("person"))
        .forEach(one -> found.add(one.get("name").asString()));
    return found.stream();
  }

  private static Predicate<JsonNode> kind(String... kinds) {
    return record -> List.of(kinds).contains(record.get("kind").asString());
  }

  private static Predicate<JsonNode> state(String... states) {
    return record -> List.of(states).contains(record.path("state").asString(""));
  }

  private static Predicate<JsonNode> on(String... names) {
    return record ->
        record
            .path("people")
            .valueStream()
            .anyMatch(
                one -> one.has("person") && List.of(names).contains(one.get("name").asString()));
  }

  private static Predicate<JsonNode> as(int role, String name) {
    return record ->
        record
            .path("people")
            .valueStream()
            .anyMatch(
                one ->
                    one.has("person")
                        && one.get("name").asString().equals(name)
                        && one.get("role").asInt() == role);
  }

  private static Predicate<JsonNode> nobody(Predicate<JsonNode> counts) {
    return record -> record.has("people") && record.get("people").valueStream().noneMatch(counts);
  }

  private static Predicate<JsonNode> at(String... codes) {
    return record ->
        Stream.concat(Stream.of(record.path("place")), record.path("uses").valueStream())
            .anyMatch(place -> List.of(codes).contains(place.path("code").asString("")));
  }

  private static Predicate<JsonNode> team(String name) {
    return record -> record.path("team").path("name").asString("").equals(name);
  }

  private static Predicate<JsonNode> tag(String tag) {
    return record ->
        record.path("tags").valueStream().anyMatch(one -> one.asString().equalsIgnoreCase(tag));
  }

  private static Predicate<JsonNode> contact(String word) {
    return record ->
        record
            .path("details")
            .valueStream()
            .filter(one -> List.of("contact", "phone").contains(one.get("key").asString()))
            .anyMatch(
                one -> one.path("value").asString("").toLowerCase(Locale.ROOT).contains(word));
  }

  private static Predicate<JsonNode> overdue() {
    return state("TENTATIVE", "CONFIRMED")
        .and(
            record ->
                record.has("due")
                    && !Instant.parse(record.get("due").get("overdueFrom").asString())
                        .isAfter(NOW));
  }

  /** Times of the house; whole days begin and end at midnight there. */
  private record Range(LocalDateTime from, LocalDateTime until) {
    static Range of(String from, String until) {
      return new Range(time(from), time(until));
    }

    private static LocalDateTime time(String text) {
      return text.contains("T") ? LocalDateTime.parse(text) : LocalDate.parse(text).atStartOfDay();
    }

    boolean holds(LocalDateTime at) {
      return !at.isBefore(from) && at.isBefore(until);
    }

    /** A day counts where the range has some of it. */
    boolean holds(LocalDate day) {
      return day.plusDays(1).atStartOfDay().isAfter(from) && day.atStartOfDay().isBefore(until);
    }

    Predicate<JsonNode> due() {
      return record -> {
        JsonNode due = record.path("due");
        return due.has("date")
            ? holds(LocalDate.parse(due.get("date").asString()))
            : due.has("instant") && holds(local(due.get("instant")));
      };
    }

    Predicate<JsonNode> visits() {
      return visit(
          one -> local(one.get("starts")).isBefore(until) && local(one.get("ends")).isAfter(from),
          one -> day(one, "first").datesUntil(day(one, "last").plusDays(1)).anyMatch(this::holds));
    }

    Predicate<JsonNode> begins() {
      return visit(one -> holds(local(one.get("starts"))), one -> holds(day(one, "first")));
    }

    Predicate<JsonNode> ends() {
      return visit(
          one -> holds(local(one.get("ends")).minusNanos(1)), one -> holds(day(one, "last")));
    }

    Predicate<JsonNode> any() {
      return due().or(visits());
    }

    private static Predicate<JsonNode> visit(
        Predicate<JsonNode> timed, Predicate<JsonNode> allDay) {
      return record ->
          record
              .path("visits")
              .valueStream()
              .anyMatch(
                  one ->
                      one.has("starts") ? timed.test(one) : one.has("first") && allDay.test(one));
    }

    private static LocalDateTime local(JsonNode instant) {
      return LocalDateTime.ofInstant(Instant.parse(instant.asString()), LONDON);
    }

    private static LocalDate day(JsonNode visit, String edge) {
      return LocalDate.parse(visit.get(edge).asString());
    }
  }

  private static final String LATE = "9999-01-01";
  private static final String EARLY = "0001-01-01";

  @DataProvider
  public Object[][] lines() {
    return Stream.of(names(), whens(), mixtures())
        .flatMap(one -> one.entrySet().stream())
        .map(one -> new Object[] {one.getKey(), one.getValue()})
        .toArray(Object[][]::new);
  }

  private static Map<String, Predicate<JsonNode>> names() {
    Map<String, Predicate<JsonNode>> all = new LinkedHashMap<>();
    all.put("paddle", words("paddle"));
    all.put("gate \"hang\"", words("gate", "hang"));
    all.put("\"Ines Okafor\"", words("ines okafor"));
    all.put("100%", words("100%"));
    all.put("ticket", kind("TICKET"));
    all.put("jobs", kind("JOB"));
    all.put("shifts", kind("SHIFT"));
    all.put("deadlines", kind("DEADLINE"));
    all.put("jobs shifts", kind("JOB", "SHIFT"));
    all.put("draft", state("DRAFT"));
    all.put("done", state("DONE"));
    all.put("tentative", state("TENTATIVE"));
    all.put("confirmed cancelled", state("CONFIRMED", "CANCELLED"));
    all.put("overdue", overdue());
    all.put("Ines", on("Ines Okafor"));
    all.put("ines okafor", on("Ines Okafor"));
    all.put("okafor as lead", as(0, "Ines Okafor"));
    all.put("Lead Ines", as(0, "Ines Okafor"));
    all.put("tam as support", as(1, "Tam Birtles"));
    all.put("marguerite as Supervisor", as(2, "Marguerite Pell"));
    all.put("Ines Tam", on("Ines Okafor", "Tam Birtles"));
    all.put("Inez", on("Ines Okafor").or(words("inez")));
    all.put("Birtels", on("Tam Birtles"));
    all.put("hang", words("hang").or(on("Hana Vesely")));
    all.put("nobody", nobody(one -> one.get("role").asInt() != 3));
    all.put("no lead", nobody(one -> one.get("role").asInt() == 0));
    all.put("nobody as support", nobody(one -> one.get("role").asInt() == 1));
    all.put("Thornmere crew", team("Thornmere crew"));
    all.put("team Bank and Dredging", team("Bank and Dredging"));
    all.put("L7", at("L7"));
    all.put("Lock 7", at("L7"));
    all.put("place Osier Weir", at("OW"));
    all.put("l7 L4", at("L7", "L4"));
    all.put("bg", at("BG"));
    all.put("weir", words("weir"));
    all.put("#closure", tag("closure"));
    all.put("tag \"towpath shut\"", tag("towpath shut"));
    all.put("#closure #nothing", record -> false);
    all.put("contact tolland", contact("tolland"));
    all.put("contact 0555", contact("0555"));
    all.put("Nowhere Man", words("nowhere", "man"));
    return all;
  }

  private static Map<String, Predicate<JsonNode>> whens() {
    Map<String, Predicate<JsonNode>> all = new LinkedHashMap<>();
    all.put("today", Range.of("2026-11-25", "2026-11-26").any());
    all.put("tomorrow", Range.of("2026-11-26", "2026-11-27").any());
    all.put("yesterday", Range.of("2026-11-24", "2026-11-25").any());
    all.put("this week", Range.of("2026-11-23", "2026-11-30").any());
    all.put("next week", Range.of("2026-11-30", "2026-12-07").any());
    all.put("last week", Range.of("2026-11-16", "2026-11-23").any());
    all.put("this month", Range.of("2026-11-01", "2026-12-01").any());
    all.put("last month", Range.of("2026-10-01", "2026-11-01").any());
    all.put("next year", Range.of("2027-01-01", "2028-01-01").any());
    all.put("Fri", Range.of("2026-11-27", "2026-11-28").any());
    all.put("next monday", Range.of("2026-11-30", "2026-12-01").any());
    all.put("Fri 13:00–18:00", Range.of("2026-11-27T13:00", "2026-11-27T18:00").any());
    all.put("today 22:00-06:00", Range.of("2026-11-25T22:00", "2026-11-26T06:00").any());
    all.put("23–27 Nov", Range.of("2026-11-23", "2026-11-28").any());
    all.put("28 Nov - 2 Dec", Range.of("2026-11-28", "2026-12-03").any());
    all.put("2 Dec", Range.of("2026-12-02", "2026-12-03").any());
    all.put("Dec 2026", Range.of("2026-12-01", "2027-01-01").any());
    all.put("2026-11-27", Range.of("2026-11-27", "2026-11-28").any());
    all.put("due before 2 Dec", Range.of(EARLY, "2026-12-02").due());
    all.put("due today", Range.of("2026-11-25", "2026-11-26").due());
    all.put("due by Fri 13:00", Range.of(EARLY, "2026-11-27T13:01").due());
    all.put("due after Fri", Range.of("2026-11-28", LATE).due());
    all.put("due since yesterday", Range.of("2026-11-24", LATE).due());
    all.put("begins tomorrow", Range.of("2026-11-26", "2026-11-27").begins());
    all.put("begins after next week", Range.of("2026-12-07", LATE).begins());
    all.put("ends before today", Range.of(EARLY, "2026-11-25").ends());
    all.put("ends this week", Range.of("2026-11-23", "2026-11-30").ends());
    all.put("before today", Range.of(EARLY, "2026-11-25").any());
    all.put("from 30 Nov to 4 Dec", Range.of("2026-11-30", "2026-12-05").any());
    all.put("between tomorrow and Sat", Range.of("2026-11-26", "2026-11-29").any());
    return all;
  }

  private static Map<String, Predicate<JsonNode>> mixtures() {
    Map<String, Predicate<JsonNode>> all = new LinkedHashMap<>();
    all.put(
        "tickets due this week", kind("TICKET").and(Range.of("2026-11-23", "2026-11-30").due()));
    all.put("Ines tomorrow", on("Ines Okafor").and(Range.of("2026-11-26", "2026-11-27").any()));
    all.put("jobs nobody", kind("JOB").and(nobody(one -> one.get("role").asInt() != 3)));
    all.put(
        "Lock 7 last month done",
        at("L7").and(Range.of("2026-10-01", "2026-11-01").any()).and(state("DONE")));
    all.put("overdue tickets Tam", overdue().and(kind("TICKET")).and(on("Tam Birtles")));
    all.put(
        "Thornmere crew confirmed jobs",
        team("Thornmere crew").and(state("CONFIRMED")).and(kind("JOB")));
    all.put("gate next week", words("gate").and(Range.of("2026-11-30", "2026-12-07").any()));
    all.put(
        "#closure jobs begins after today",
        tag("closure").and(kind("JOB")).and(Range.of("2026-11-26", LATE).begins()));
    all.put(
        "this week Fri",
        Range.of("2026-11-23", "2026-11-30").any().and(Range.of("2026-11-27", "2026-11-28").any()));
    all.put(
        "shift Nell next week",
        kind("SHIFT").and(on("Nell Ashdown")).and(Range.of("2026-11-30", "2026-12-07").any()));
    all.put("dredg caio as lead", words("dredg").and(as(0, "Caio Merrin")));
    return all;
  }

  @Test(dataProvider = "lines")
  public void findsWhatTheSlowFilterFinds(String line, Predicate<JsonNode> like) {
    String query = "&find=" + URLEncoder.encode(line, StandardCharsets.UTF_8);
    askers.forEach(
        (who, api) -> {
          Set<String> expected = refs(seen.get(who).stream().filter(like));
          assertThat(refs(walk(api, query, 50).stream())).as(who + ": " + line).isEqualTo(expected);
          counted(
              who + ": " + line,
              api.get("/api/v1/records/facets?x" + query).expect(200).json(),
              seen.get(who).stream().filter(like).toList());
          found += expected.isEmpty() ? 0 : 1;
        });
  }

  /** Of each sort as many as their reader sees so. */
  private static void counted(String of, JsonNode facets, List<JsonNode> records) {
    assertThat(facets.get("total").asInt()).as(of).isEqualTo(records.size());
    Map<String, Map<String, Long>> told = new TreeMap<>();
    facets
        .get("facets")
        .forEach(
            facet ->
                facet
                    .get("values")
                    .forEach(
                        one ->
                            told.computeIfAbsent(
                                    facet.get("sort").asString(), key -> new TreeMap<>())
                                .put(valueOf(one), one.get("count").asLong())));
    Map<String, Map<String, Long>> expected = new TreeMap<>();
    for (JsonNode record : records) {
      count(expected, "KIND", Stream.of(record.get("kind")));
      count(expected, "STATE", Stream.of(record.path("state")));
      count(expected, "TEAM", Stream.of(record.path("team").path("id")));
      count(expected, "PLACE", Stream.of(record.path("place").path("id")));
      count(expected, "PERSON", record.path("people").valueStream().map(one -> one.path("person")));
    }
    assertThat(told).as(of).isEqualTo(expected);
  }

  private static String valueOf(JsonNode one) {
    return one.path("kind").asString(one.path("state").asString(one.path("id").asString("")));
  }

  private static void count(
      Map<String, Map<String, Long>> counts, String sort, Stream<JsonNode> values) {
    values
        .filter(one -> !one.isMissingNode())
        .map(JsonNode::asString)
        .distinct()
        .forEach(
            one -> counts.computeIfAbsent(sort, key -> new TreeMap<>()).merge(one, 1L, Long::sum));
  }

  private static Set<String> refs(Stream<JsonNode> records) {
    return records
        .map(one -> one.get("id").asLong() + " " + one.path("title").asString(""))
        .collect(Collectors.toCollection(TreeSet::new));
  }

  @Test(dependsOnMethods = "findsWhatTheSlowFilterFinds")
  public void mostLinesFindSomething() {
    assertThat(found).isGreaterThan(140);
  }

  // ---- What the office alone may name ----------------------------------------------------------

  @Test
  public void regionsAreNamesToTheOfficeAndWordsToOthers() {
    assertThat(found("hana", "region Salt Coast"))
        .isNotEmpty()
        .isEqualTo(refs(seen.get("hana").stream().filter(at("SC", "SG"))));
    assertThat(refs(seen.get("ines").stream().filter(at("SC", "SG")))).isNotEmpty();
    assertThat(found("ines", "region Salt Coast"))
        .isEqualTo(refs(seen.get("ines").stream().filter(words("region", "salt", "coast"))));
  }

  @Test
  public void chainsAreNamesToTheOfficeAndWordsToOthers() {
    Set<Long> made = new TreeSet<>();
    askers
        .get("hana")
        .get("/api/v1/deadline-sets")
        .json()
        .get("sets")
        .valueStream()
        .filter(set -> set.get("name").asString().equals("planned stoppage"))
        .forEach(
            set -> {
              made.add(set.path("work").path("id").asLong());
              set.get("steps").forEach(step -> made.add(step.path("record").asLong()));
            });
    Predicate<JsonNode> ofThem = record -> made.contains(record.get("id").asLong());
    assertThat(found("hana", "chain planned stoppage"))
        .hasSizeGreaterThan(8)
        .isEqualTo(refs(seen.get("hana").stream().filter(ofThem)));
    assertThat(found("ines", "chain planned stoppage"))
        .isEqualTo(refs(seen.get("ines").stream().filter(words("chain", "planned", "stoppage"))));
  }

  private Set<String> found(String who, String line) {
    String query = "&find=" + URLEncoder.encode(line, StandardCharsets.UTF_8);
    return refs(walk(askers.get(who), query, 3).stream());
  }

  // ---- Orders ----------------------------------------------------------------------------------

  private static String due(JsonNode record) {
    return record.path("due").path("overdueFrom").asString("");
  }

  private static String begin(JsonNode record) {
    return record
        .path("visits")
        .valueStream()
        .map(visit -> visit.path("starts").asString(visit.path("first").asString("")))
        .filter(time -> !time.isEmpty())
        .min(Comparator.naturalOrder())
        .orElse("");
  }

  private static String place(JsonNode record) {
    return record.path("place").path("name").asString("").toLowerCase(Locale.ROOT);
  }

  private static String title(JsonNode record) {
    return record.path("title").asString("").toLowerCase(Locale.ROOT);
  }

  private static String made(JsonNode record) {
    return "%09d".formatted(record.get("id").asLong());
  }

  @DataProvider
  public Object[][] orders() {
    Function<JsonNode, String> due = FindingTest::due;
    Function<JsonNode, String> begin = FindingTest::begin;
    Function<JsonNode, String> place = FindingTest::place;
    Function<JsonNode, String> made = FindingTest::made;
    return new Object[][] {
      {"DUE", due, false},
      {"DUE_LAST", due, true},
      {"BEGIN", begin, false},
      {"BEGIN_LAST", begin, true},
      {"PLACE", place, false},
      {"PLACE_LAST", place, true},
      {"OLDEST", made, false},
      {"NEWEST", made, true},
      {"DETAIL:title", (Function<JsonNode, String>) FindingTest::title, false},
      {"DETAIL_LAST:title", (Function<JsonNode, String>) FindingTest::title, true},
    };
  }

  /** All of them once, in order; what has it not comes last, as it was made. */
  @Test(dataProvider = "orders")
  public void goesBy(String sort, Function<JsonNode, String> key, boolean down) {
    Comparator<String> order = down ? Comparator.reverseOrder() : Comparator.naturalOrder();
    askers.forEach(
        (who, api) -> {
          List<JsonNode> all = walk(api, "&sort=" + sort, 7);
          assertThat(all).as(who).hasSameSizeAs(seen.get(who));
          assertThat(refs(all.stream())).as(who).isEqualTo(refs(seen.get(who).stream()));
          List<String> keys = all.stream().map(key).toList();
          List<String> having = keys.stream().takeWhile(one -> !one.isEmpty()).toList();
          assertThat(having).as(who).isNotEmpty().isSortedAccordingTo(order);
          assertThat(keys.subList(having.size(), keys.size())).as(who).allMatch(String::isEmpty);
          assertThat(all.subList(having.size(), all.size()).stream().map(FindingTest::made))
              .as(who)
              .isSortedAccordingTo(order);
        });
  }

  @Test
  public void theOfficeAloneGoesByTheLastChange() {
    JsonNode any = seen.get("hana").get(0);
    String path = "/api/v1/records/" + any.get("id").asLong();
    String tag = askers.get("hana").get(path).header("ETag");
    askers.get("hana").patch(path, "{\"title\": \"Looked at again\"}", "If-Match", tag).expect(200);
    JsonNode first =
        askers
            .get("hana")
            .get("/api/v1/records?sort=CHANGED&limit=1")
            .expect(200)
            .json()
            .get("items")
            .get(0);
    assertThat(first.get("id").asLong()).isEqualTo(any.get("id").asLong());
    askers.get("ines").get("/api/v1/records?sort=CHANGED").expect(403);
    askers.get("marguerite").get("/api/v1/records?sort=CHANGED_FIRST").expect(403);
  }
}
