package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A change is refused for what it makes wrong or worse, and for nothing else. */
public class WorsenedTest {

  private static final Instant MONDAY = Instant.parse("2026-12-07T00:00:00Z");

  private static final Travel TRAVEL =
      new Travel(
          Map.of(new Travel.Way(PlaceId.of(1), PlaceId.of(2)), Duration.ofMinutes(90)),
          Map.of(),
          0);

  /** Nothing is allowed; rest 11 h, at a stretch 10 h, in a week 40 h, 5 days and 2 nights. */
  private static final Limits STRICT =
      new Limits(
          Arrays.stream(Clash.Kind.values())
              .collect(
                  Collectors.toMap(
                      kind -> kind,
                      kind -> Clash.Level.NEVER,
                      (one, other) -> one,
                      () -> new EnumMap<>(Clash.Kind.class))),
          Duration.ofHours(11),
          Duration.ofHours(10),
          DayOfWeek.MONDAY,
          Duration.ofHours(40),
          0,
          Duration.ZERO,
          5,
          2,
          0);

  private static TimeSpan span(String ends) {
    String[] both = ends.split("-");
    return TimeSpan.of(at(both[0]), at(both[1]));
  }

  private static Instant at(String hours) {
    return MONDAY.plus(Duration.ofMinutes(Math.round(60 * Double.parseDouble(hours))));
  }

  /** Work as {@code A8-12@2}: its name, hours from Monday on, its place; {@code ?} is tentative. */
  private static List<Work> works(String list) {
    List<Work> found = new ArrayList<>();
    for (String one : list.isEmpty() ? new String[0] : list.split(" ")) {
      String[] parts = one.substring(1).replace("?", "").split("@");
      found.add(
          new Work(
              one.substring(0, 1),
              span(parts[0]),
              Optional.empty(),
              one.endsWith("?"),
              Optional.of(PlaceId.of(parts.length > 1 ? Long.parseLong(parts[1]) : 1)),
              Margins.NONE,
              false,
              List.of(),
              ZoneOffset.UTC));
    }
    return found;
  }

  private static Commitments of(String works, String leave, String busy, Hours hours) {
    return new Commitments(
        PersonId.of(1),
        ZoneOffset.UTC,
        hours,
        leave.isEmpty() ? List.of() : List.of(new Commitments.Leave("l", span(leave))),
        busy.isEmpty() ? List.of() : List.of(new Commitments.Busy(span(busy), false)),
        works(works),
        Eligibility.PLAIN);
  }

  /** Leave, busy, before, after, what the change gives or moves, what is refused. */
  @DataProvider
  public Object[][] changes() {
    return new Object[][] {
      {"nothing is wrong", "", "", "", "A8-12", "A", ""},
      {"a double that it makes", "", "", "A8-12", "A8-12 B11-13", "B", "DOUBLE"},
      {"touching is none", "", "", "A8-12", "A8-12 B12-13", "B", ""},
      {"of what was there nothing is said", "", "", "A8-12 B9-10", "A8-12 B9-10 C14-15", "C", ""},
      {"longer than it was", "", "", "A8-12 B11-13", "A8-12 B10-13", "B", "DOUBLE"},
      {"as long as it was", "", "", "A8-12 B11-13", "A8-12 B11-14", "B", ""},
      {"shorter than it was", "", "", "A8-12 B10-13", "A8-12 B11-13", "B", ""},
      {"another one instead", "", "", "A8-12 B11-13 C15-16", "A8-12 B15-16 C15-16", "B", "DOUBLE"},
      {
        "double until now, too near from now on",
        "",
        "",
        "A8-12@1 B11-13@2",
        "A8-12@1 B13-14@2",
        "B",
        ""
      },
      {
        "too near until now, double from now on",
        "",
        "",
        "A8-12@1 B13-14@2",
        "A8-12@1 B11-13@2",
        "B",
        "DOUBLE"
      },
      {"nearer than it was", "", "", "A8-12@1 B13-14@2", "A8-12@1 B12.5-14@2", "B", "TRAVEL"},
      {"farther than it was", "", "", "A8-12@1 B12.5-14@2", "A8-12@1 B13-14@2", "B", ""},
      {"tentative only warns", "", "", "A8-12", "A8-12 B11-13?", "B", ""},
      {"it becomes confirmed", "", "", "A8-12 B11-13?", "A8-12 B11-13", "B", "DOUBLE"},
      {"the other one is tentative", "", "", "A8-12?", "A8-12? B11-13", "B", ""},
      {"leave", "24-48", "", "", "A30-32", "A", "LEAVE"},
      {"leave as before", "24-48", "", "A30-32", "A31-33", "A", ""},
      {"leave, longer", "24-48", "", "A30-32", "A30-33", "A", "LEAVE"},
      {"off the leave", "24-48", "", "A30-32", "A50-52", "A", ""},
      {"busy elsewhere", "", "30-31", "", "A30-32", "A", "BUSY"},
      {"rest", "", "", "A8-16", "A8-16 B25-30", "B", "REST"},
      {"less rest", "", "", "A8-16 B25-30", "A8-17 B25-30", "A", "REST"},
      {"more rest, not enough yet", "", "", "A8-16 B25-30", "A8-16 B26-30", "B", ""},
      {"too long", "", "", "A8-16", "A8-16 B16-19", "B", "LONGEST"},
      {"too long and longer", "", "", "A8-19", "A8-19 B19-20", "B", "LONGEST"},
      {"too long and shorter", "", "", "A8-20", "A8-19", "A", ""},
      {
        "the week",
        "",
        "",
        "A0-10 B24-34 C48-58 D72-82",
        "A0-10 B24-34 C48-58 D72-82 E96-97",
        "E",
        "WEEK"
      },
      {
        "the week, less of too much",
        "",
        "",
        "A0-10 B24-34 C48-58 D72-82 E96-98",
        "A0-10 B24-34 C48-58 D72-82 E96-97",
        "E",
        ""
      },
      {
        "another week",
        "",
        "",
        "A0-10 B24-34 C48-58 D72-82",
        "A0-10 B24-34 C48-58 D72-82 E168-169",
        "E",
        ""
      },
      {
        "days in a row",
        "",
        "",
        "A8-9 B32-33 C56-57 D80-81 E104-105",
        "A8-9 B32-33 C56-57 D80-81 E104-105 F128-129",
        "F",
        "DAYS"
      },
      {
        "a day more of too many",
        "",
        "",
        "A8-9 B32-33 C56-57 D80-81 E104-105 F128-129",
        "A8-9 B32-33 C56-57 D80-81 E104-105 F128-129 G152-153",
        "G",
        "DAYS"
      },
      {
        "too many days, at another hour",
        "",
        "",
        "A8-9 B32-33 C56-57 D80-81 E104-105 F128-129",
        "A8-9 B32-33 C56-57 D80-81 E104-105 F130-131",
        "F",
        ""
      },
      {"nights in a row", "", "", "A23-28 B47-52", "A23-28 B47-52 C71-76", "C", "NIGHTS"},
      {"nobody's work is what changed", "", "", "A8-12", "A8-12 B11-13", "", ""},
    };
  }

  @Test(dataProvider = "changes")
  public void onlyWhatIsMadeOrMadeWorseIsRefused(
      String name,
      String leave,
      String busy,
      String before,
      String after,
      String changed,
      String refused) {
    Set<String> ids = changed.isEmpty() ? Set.of() : Set.of(changed);
    assertThat(
            Worsened.of(
                    of(before, leave, busy, Hours.UNSAID),
                    of(after, leave, busy, Hours.UNSAID),
                    ids,
                    STRICT,
                    TRAVEL)
                .stream()
                .filter(one -> one.level() == Clash.Level.NEVER)
                .map(one -> one.kind().name())
                .distinct()
                .collect(Collectors.joining(" ")))
        .as(name)
        .isEqualTo(refused);
  }

  /** A house that only warns is told the same, as a warning. */
  @Test(dataProvider = "changes")
  public void whatIsOnlyWarnedOfIsToldAsAWarning(
      String name,
      String leave,
      String busy,
      String before,
      String after,
      String changed,
      String refused) {
    Limits lenient =
        new Limits(
            Map.of(),
            STRICT.rest(),
            STRICT.longest(),
            STRICT.weekBegins(),
            STRICT.week(),
            0,
            Duration.ZERO,
            STRICT.daysInARow(),
            STRICT.nightsInARow(),
            0);
    List<Clash> told =
        Worsened.of(
            of(before, leave, busy, Hours.UNSAID),
            of(after, leave, busy, Hours.UNSAID),
            changed.isEmpty() ? Set.of() : Set.of(changed),
            lenient,
            TRAVEL);
    assertThat(told).as(name).allMatch(one -> one.level() == Clash.Level.WARN);
    // What was tentative was warned of before.
    if (!refused.isEmpty() && !before.contains("?")) {
      assertThat(told.stream().map(one -> one.kind().name())).as(name).contains(refused);
    }
  }

  /** From eight until noon on Monday and Tuesday. */
  private static Hours mornings() {
    List<Hours.Dated> days = new ArrayList<>();
    for (int day = 7; day < 14; day++) {
      days.add(
          new Hours.Dated(
              LocalDate.of(2026, 12, day),
              Optional.empty(),
              ZoneOffset.UTC,
              day > 8
                  ? List.of()
                  : List.of(new Hours.Clock(LocalTime.of(8, 0), LocalTime.of(12, 0)))));
    }
    return new Hours(List.of(), days);
  }

  /** Before, after, minutes outside that are refused. */
  @DataProvider
  public Object[][] hours() {
    return new Object[][] {
      {"", "A8-12", 0L},
      {"", "A8-13", 60L},
      {"A8-13", "A8-13", 0L},
      {"A8-13", "A8-14", 120L},
      {"A8-14", "A8-13", 0L},
      {"A8-13", "A32-37", 60L},
      {"A7-13", "A7-12", 0L},
    };
  }

  @Test(dataProvider = "hours")
  public void outsideHoursItIsTheMinutesThatCount(String before, String after, long minutes) {
    assertThat(
            Worsened.of(
                    of(before, "", "", mornings()),
                    of(after, "", "", mornings()),
                    Set.of("A"),
                    STRICT,
                    TRAVEL)
                .stream()
                .mapToLong(one -> one.span().length().toMinutes())
                .sum())
        .isEqualTo(minutes);
  }

  /** What stands there before and after, as name, hours and people. */
  @DataProvider
  public Object[][] rooms() {
    return new Object[][] {
      {"visits that fit", false, "A8-10:1", "A8-10:1 B9-11:2", "B", false},
      {"one too many", false, "A8-10:1 B9-11:2", "A8-10:1 B9-11:2 C9-10:3", "C", true},
      {
        "as many as before", false, "A8-10:1 B8-10:2 C9-10:3", "A8-10:1 B8-10:2 C9-10:4", "C", false
      },
      {"for longer", false, "A8-10:1 B8-10:2 C9-10:3", "A8-10:1 B8-10:2 C8-10:3", "C", true},
      {"for less long", false, "A8-10:1 B8-10:2 C8-10:3", "A8-10:1 B8-10:2 C9-10:3", "C", false},
      {
        "and one more",
        false,
        "A8-10:1 B8-10:2 C8-10:3",
        "A8-10:1 B8-10:2 C8-10:3 D8-9:4",
        "D",
        true
      },
      {"away from there", false, "A8-10:1 B8-10:2 C8-10:3", "A8-10:1 B8-10:2", "C", false},
      {"people who fit", true, "A8-10:1,2", "A8-10:1,2 B9-11:2", "B", false},
      {"a person too many", true, "A8-10:1,2", "A8-10:1,2,3", "A", true},
      {"the same people in another visit", true, "A8-10:1,2", "A8-10:1,2 B8-10:1,2", "B", false},
    };
  }

  @Test(dataProvider = "rooms")
  public void aPlaceHoldsNoMoreThanBefore(
      String name, boolean ofPeople, String before, String after, String changed, boolean refused) {
    Clashes.Capacity capacity = new Clashes.Capacity(PlaceId.of(1), 2, ofPeople);
    assertThat(
            Worsened.of(capacity, stays(before), stays(after), Set.of(changed), STRICT).isEmpty())
        .as(name)
        .isEqualTo(!refused);
  }

  private static List<Clashes.Stay> stays(String list) {
    return Arrays.stream(list.split(" "))
        .map(
            one -> {
              String[] parts = one.substring(1).split(":");
              Set<PersonId> people =
                  Arrays.stream(parts[1].split(","))
                      .map(id -> PersonId.of(Long.parseLong(id)))
                      .collect(Collectors.toCollection(TreeSet::new));
              return new Clashes.Stay(one.substring(0, 1), span(parts[0]), people, false);
            })
        .toList();
  }
}
