package mellowrota.server.demo;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;

/**
 * Who stands which shift of the demo: within their hours, rested, with the skill, and on no other
 * work that day. What stands against that is told in the demo's file.
 */
final class DemoShifts {

  private static final int ROUNDS = 60;
  private static final Duration REST = Duration.ofHours(11);
  private static final Duration WEEK = Duration.ofHours(48);
  private static final int DAYS_IN_A_ROW = 6;
  private static final LocalTime DAY_BEGINS = LocalTime.of(7, 0);
  private static final LocalTime DAY_ENDS = LocalTime.of(16, 0);

  private final JsonNode world;
  private final LocalDate today;

  DemoShifts(JsonNode world, LocalDate today) {
    this.world = world;
    this.today = today;
  }

  /**
   * One place of a duty on one day, counted from today.
   *
   * @param person empty: nobody stands it
   */
  record Shift(JsonNode duty, Times times, int day, Optional<String> person) {}

  /** From one local time until another. */
  record Times(LocalDateTime start, LocalDateTime end) {
    Duration length() {
      return Duration.between(start, end);
    }

    boolean within(Times other) {
      return !start.isBefore(other.start) && !end.isAfter(other.end);
    }

    boolean near(Times other, Duration apart) {
      return other.start.isBefore(end.plus(apart)) && start.isBefore(other.end.plus(apart));
    }

    Times with(Times other) {
      return new Times(
          start.isBefore(other.start) ? start : other.start,
          end.isAfter(other.end) ? end : other.end);
    }

    LocalDate lastDay() {
      return end.minusMinutes(1).toLocalDate();
    }
  }

  /** From one time of a day until another, the next day's where it is not after it. */
  Times times(int day, JsonNode span) {
    LocalDate date = today.plusDays(day);
    LocalTime from = LocalTime.parse(span.get(0).asString());
    LocalTime until = LocalTime.parse(span.get(1).asString());
    return new Times(
        date.atTime(from), (until.isAfter(from) ? date : date.plusDays(1)).atTime(until));
  }

  /** Of the first round that leaves nothing open, else of the one that leaves least. */
  List<Shift> laid(int first, int until) {
    Round best = null;
    for (int seed = 0; seed < ROUNDS && (best == null || best.open > 0); seed++) {
      Round round = new Round(seed);
      for (int day = first; day < until; day++) {
        round.lay(day);
      }
      if (best == null || round.open < best.open) {
        best = round;
      }
    }
    List<Shift> laid = new ArrayList<>(best.laid);
    laid.sort(Comparator.comparingInt(Shift::day));
    return laid;
  }

  /** What somebody works in a week, by the day of the week; nothing: they have no hours then. */
  Optional<Times> hours(String name, int day) {
    JsonNode week = world.get("hours").path(person(name).path("hours").asString(""));
    JsonNode span = week.get("" + today.plusDays(day).getDayOfWeek().getValue());
    return Optional.ofNullable(span).map(found -> times(day, found));
  }

  /** Of whoever is on work of a day which their hours as a rule do not hold: one span a day. */
  Map<String, List<Times>> otherHours() {
    Map<String, Map<LocalDate, Times>> wanted = new TreeMap<>();
    for (JsonNode job : world.get("jobs")) {
      Set<Times> spans = new LinkedHashSet<>(spans(job.path("visits")));
      for (JsonNode later : world.get("later")) {
        if (later.get("title").equals(job.get("title")) && later.has("start")) {
          spans.add(times(later.get("day").asInt(), later.get("start"), later.get("end")));
        }
      }
      for (String name : on(job)) {
        // There is a margin before and after.
        spans.forEach(one -> want(wanted, name, one.start().minusHours(1), one.end().plusHours(1)));
        wholeDays(job)
            .forEach(day -> want(wanted, name, day.atTime(DAY_BEGINS), day.atTime(DAY_ENDS)));
      }
    }
    for (JsonNode one : world.get("against")) {
      Times times = times(one.get(1).asInt(), duty(one.get(0)).get("spans").get(0));
      want(wanted, one.get(2).asString(), times.start(), times.end());
    }
    Map<String, List<Times>> found = new TreeMap<>();
    wanted.forEach((name, days) -> found.put(name, days.values().stream().toList()));
    return found;
  }

  private void want(
      Map<String, Map<LocalDate, Times>> wanted,
      String name,
      LocalDateTime start,
      LocalDateTime end) {
    LocalDate date = start.toLocalDate();
    // Who has no hours at all is not known to be away on any day.
    if (!person(name).has("hours")) {
      return;
    }
    Map<LocalDate, Times> days = wanted.computeIfAbsent(name, key -> new TreeMap<>());
    Optional<Times> usual = hours(name, (int) ChronoUnit.DAYS.between(today, date));
    Times asked = new Times(start, end);
    if (usual.isEmpty() || !asked.within(usual.get())) {
      usual.ifPresent(hours -> days.merge(date, hours, Times::with));
      days.merge(date, asked, Times::with);
    }
  }

  private List<Times> spans(JsonNode visits) {
    return visits
        .valueStream()
        .map(visit -> times(visit.get(0).asInt(), visit.get(1), visit.get(2)))
        .toList();
  }

  private List<LocalDate> wholeDays(JsonNode job) {
    return job.path("days")
        .valueStream()
        .flatMap(
            days ->
                today
                    .plusDays(days.get(0).asInt())
                    .datesUntil(today.plusDays(days.get(1).asInt() + 1L)))
        .toList();
  }

  /** In roles that take their time. */
  private static List<String> on(JsonNode job) {
    return Stream.concat(Stream.of(job.get("lead")), job.path("support").valueStream())
        .map(JsonNode::asString)
        .toList();
  }

  private Times times(int day, JsonNode from, JsonNode until) {
    LocalDate date = today.plusDays(day);
    return new Times(
        date.atTime(LocalTime.parse(from.asString())),
        date.atTime(LocalTime.parse(until.asString())));
  }

  private JsonNode duty(JsonNode name) {
    return world
        .get("duties")
        .valueStream()
        .filter(one -> one.get("name").equals(name))
        .findFirst()
        .orElseThrow();
  }

  private JsonNode person(String name) {
    return world
        .get("people")
        .valueStream()
        .filter(one -> one.get("name").asString().equals(name))
        .findFirst()
        .orElseThrow();
  }

  /** Who stands it against their hours, rest or skill, where the demo wants that. */
  private Optional<String> against(JsonNode duty, int day, int place) {
    return told("against", duty, day, place).map(one -> one.get(2).asString());
  }

  private Optional<JsonNode> told(String list, JsonNode duty, int day, int place) {
    return world
        .get(list)
        .valueStream()
        .filter(
            one -> place == 0 && one.get(0).equals(duty.get("name")) && one.get(1).asInt() == day)
        .findFirst();
  }

  /** One way to lay them all. */
  private final class Round {
    final List<Shift> laid = new ArrayList<>();
    final Map<String, List<Times>> work = new HashMap<>();
    final Map<String, Set<LocalDate>> wholeDays = new HashMap<>();
    final Random random;
    final boolean shuffles;
    int open;

    Round(int seed) {
      random = new Random(seed);
      shuffles = seed > 0;
      for (JsonNode job : world.get("jobs")) {
        for (String name : on(job)) {
          occupied(name).addAll(spans(job.path("visits")));
          wholeDays.computeIfAbsent(name, key -> new HashSet<>()).addAll(wholeDays(job));
        }
      }
      for (JsonNode one : world.get("against")) {
        JsonNode span = duty(one.get(0)).get("spans").get(0);
        occupied(one.get(2).asString()).add(times(one.get(1).asInt(), span));
      }
    }

    List<Times> occupied(String name) {
      return work.computeIfAbsent(name, key -> new ArrayList<>());
    }

    /** The places for which fewest could stand come first. */
    void lay(int day) {
      List<Shift> left = new ArrayList<>();
      for (JsonNode duty : world.get("duties")) {
        for (int place = 0; place < duty.get("spans").size(); place++) {
          Times times = times(day, duty.get("spans").get(place));
          Optional<String> against = against(duty, day, place);
          if (against.isPresent() || told("nobodyOn", duty, day, place).isPresent()) {
            laid.add(new Shift(duty, times, day, against));
          } else {
            left.add(new Shift(duty, times, day, Optional.empty()));
          }
        }
      }
      while (!left.isEmpty()) {
        Shift scarce = Collections.min(left, Comparator.comparingInt(one -> able(one).size()));
        left.remove(scarce);
        stand(scarce);
      }
    }

    void stand(Shift shift) {
      List<String> able = able(shift);
      if (shuffles) {
        Collections.shuffle(able, random);
      }
      Optional<String> person = able.stream().findFirst();
      person.ifPresentOrElse(name -> occupied(name).add(shift.times()), () -> open++);
      laid.add(new Shift(shift.duty(), shift.times(), shift.day(), person));
    }

    /** Each duty goes round among its people. */
    List<String> able(Shift shift) {
      List<String> people =
          new ArrayList<>(
              shift.duty().get("people").valueStream().map(JsonNode::asString).toList());
      Collections.rotate(people, -Math.floorMod(shift.day(), people.size()));
      people.removeIf(name -> !could(name, shift));
      return people;
    }

    boolean could(String name, Shift shift) {
      Times times = shift.times();
      List<Times> others = occupied(name);
      return hours(name, shift.day()).filter(times::within).isPresent()
          && hasSkill(name, shift)
          && isThere(name, times)
          && others.stream().noneMatch(other -> times.near(other, REST))
          && inTheWeek(others, times).compareTo(WEEK) <= 0
          && inARow(name, times) <= DAYS_IN_A_ROW;
    }

    boolean hasSkill(String name, Shift shift) {
      if (!shift.duty().has("skill")) {
        return true;
      }
      JsonNode until = person(name).path("skills").get(shift.duty().get("skill").asString());
      return until != null && (until.isNull() || until.asInt() > shift.day());
    }

    boolean isThere(String name, Times times) {
      LocalDate first = times.start().toLocalDate();
      LocalDate last = times.lastDay();
      Set<LocalDate> taken = wholeDays.getOrDefault(name, Set.of());
      return !taken.contains(first)
          && !taken.contains(last)
          && world
              .get("leave")
              .valueStream()
              .filter(leave -> leave.get("person").asString().equals(name))
              .noneMatch(
                  leave -> {
                    LocalDate from = today.plusDays(leave.get("first").asInt());
                    LocalDate until = from.plusDays(leave.get("days").asInt());
                    return !last.isBefore(from) && first.isBefore(until);
                  });
    }

    Duration inTheWeek(List<Times> others, Times times) {
      LocalDate monday = monday(times);
      return others.stream()
          .filter(other -> monday(other).equals(monday))
          .map(Times::length)
          .reduce(times.length(), Duration::plus);
    }

    static LocalDate monday(Times times) {
      LocalDate day = times.start().toLocalDate();
      return day.minusDays(day.getDayOfWeek().getValue() - 1L);
    }

    long inARow(String name, Times times) {
      Set<LocalDate> days = new HashSet<>(wholeDays.getOrDefault(name, Set.of()));
      occupied(name).forEach(other -> days.add(other.start().toLocalDate()));
      LocalDate first = times.start().toLocalDate();
      LocalDate last = first;
      while (days.contains(first.minusDays(1))) {
        first = first.minusDays(1);
      }
      while (days.contains(last.plusDays(1))) {
        last = last.plusDays(1);
      }
      return ChronoUnit.DAYS.between(first, last) + 1;
    }
  }
}
