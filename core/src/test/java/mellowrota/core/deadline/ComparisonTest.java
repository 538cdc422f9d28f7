package mellowrota.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Due;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What becomes of each step of a set when something that its dates rest on changes. */
public final class ComparisonTest {

  private static final ZoneId ZONE = ZoneId.of("Europe/London");

  private static final String CHAIN =
      """
      chain: c
      key date: x
      ask: q
      2 days before x: a
      1 working day before x, on any day, at 09:00: b; only if q
      1 day after a: c
      2 hours before x: d
      1 day after x, by chosen method: e
      """;

  private static final WorkingDays DAYS =
      new WorkingDays(
          new WorkingWeek(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY)),
          Map.of(LocalDate.of(2026, 12, 25), "Midwinter"),
          List.of());

  /** As in {@code 10T08; q; by hand; a done 8; b hand 9; c out}: the tenth of December at eight. */
  private static List<Reckoned> reckoned(String chain, String given) {
    Optional<Due> key = Optional.empty();
    Optional<Name> method = Optional.empty();
    Map<Name, Boolean> answers = new HashMap<>();
    Map<Name, Given.Fixed> fixed = new HashMap<>();
    for (String part : given.isEmpty() ? new String[0] : given.split("; ")) {
      String[] words = part.split(" ");
      if (Character.isDigit(part.charAt(0))) {
        key = Optional.of(due(part));
      } else if (part.endsWith("q")) {
        answers.put(Name.of("q"), part.equals("q"));
      } else if (words[0].equals("by")) {
        method = Optional.of(Name.of(words[1]));
      } else {
        Optional<Due> due = words.length > 2 ? Optional.of(due(words[2])) : Optional.empty();
        fixed.put(
            Name.of(words[0]),
            new Given.Fixed(
                words[1].equals("out"),
                words[1].equals("done") ? due : Optional.empty(),
                words[1].equals("hand") ? due : Optional.empty()));
      }
    }
    return Reckoner.of(
        ChainReader.read(chain, House.KNOWN).chain().orElseThrow(),
        new Given(key, method, answers, fixed, House.KNOWN.methods(), DAYS, ZONE));
  }

  private static Due due(String text) {
    String[] parts = text.split("T");
    LocalDate day = LocalDate.of(2026, 12, Integer.parseInt(parts[0]));
    return parts.length == 1
        ? new Due.On(day)
        : new Due.At(
            LocalDateTime.of(day, LocalTime.of(Integer.parseInt(parts[1]), 0)).atZone(ZONE));
  }

  @DataProvider
  public Object[][] moves() {
    String all = "10T08; q; by hand";
    return new Object[][] {
      {
        "nothing moves", all, all, "a UNCHANGED, b UNCHANGED, c UNCHANGED, d UNCHANGED, e UNCHANGED"
      },
      {"a week later", all, "17T08; q; by hand", "a MOVED, b MOVED, c MOVED, d MOVED, e MOVED"},
      {
        "an hour later",
        all,
        "10T09; q; by hand",
        "a UNCHANGED, b UNCHANGED, c UNCHANGED, d MOVED, e UNCHANGED"
      },
      {
        "the time is gone",
        all,
        "10; q; by hand",
        "a UNCHANGED, b UNCHANGED, c UNCHANGED, d NOW_WITHOUT_DATE, e UNCHANGED"
      },
      {
        "no key date",
        all,
        "q; by hand",
        "a NOW_WITHOUT_DATE, b NOW_WITHOUT_DATE, c NOW_WITHOUT_DATE, d NOW_WITHOUT_DATE,"
            + " e NOW_WITHOUT_DATE"
      },
      {
        "still none",
        "q",
        "q",
        "a STILL_WITHOUT_DATE, b STILL_WITHOUT_DATE, c STILL_WITHOUT_DATE, d STILL_WITHOUT_DATE,"
            + " e STILL_WITHOUT_DATE"
      },
      {
        "now there is one",
        "q; by hand",
        all,
        "a NOW_DATED, b NOW_DATED, c NOW_DATED, d NOW_DATED, e NOW_DATED"
      },
      {
        "done never moves, what follows it stays with it",
        "10T08; q; by hand; a done 8",
        "17T08; q; by hand; a done 8",
        "a DONE, b MOVED, c UNCHANGED, d MOVED, e MOVED"
      },
      {
        "by hand stays, what follows it too",
        "10T08; q; by hand; a hand 7",
        "17T08; q; by hand; a hand 7",
        "a KEPT_BY_HAND, b MOVED, c UNCHANGED, d MOVED, e MOVED"
      },
      {
        "given back from by hand",
        "10T08; q; by hand; a hand 7",
        all,
        "a MOVED, b UNCHANGED, c MOVED, d UNCHANGED, e UNCHANGED"
      },
      {
        "left out, what follows it counts on",
        all,
        "10T08; q; by hand; a out",
        "a REMOVED, b UNCHANGED, c UNCHANGED, d UNCHANGED, e UNCHANGED"
      },
      {
        "put back",
        "10T08; q; by hand; a out",
        all,
        "a NOW_DATED, b UNCHANGED, c UNCHANGED, d UNCHANGED, e UNCHANGED"
      },
      {
        "the answer is no",
        all,
        "10T08; not q; by hand",
        "a UNCHANGED, b DOES_NOT_APPLY, c UNCHANGED, d UNCHANGED, e UNCHANGED"
      },
      {
        "the answer is not known",
        all,
        "10T08; by hand",
        "a UNCHANGED, b NOW_WITHOUT_DATE, c UNCHANGED, d UNCHANGED, e UNCHANGED"
      },
      {
        "by hand though the answer is no",
        all,
        "10T08; not q; by hand; b hand 9",
        "a UNCHANGED, b KEPT_BY_HAND, c UNCHANGED, d UNCHANGED, e UNCHANGED"
      },
      {
        "another method",
        all,
        "10T08; q; by courier",
        "a UNCHANGED, b UNCHANGED, c UNCHANGED, d UNCHANGED, e MOVED"
      },
      {
        "a method by the hour",
        all,
        "10T08; q; by mail",
        "a UNCHANGED, b UNCHANGED, c UNCHANGED, d UNCHANGED, e NOW_WITHOUT_DATE"
      },
      {
        "no method",
        all,
        "10T08; q",
        "a UNCHANGED, b UNCHANGED, c UNCHANGED, d UNCHANGED, e NOW_WITHOUT_DATE"
      },
    };
  }

  @Test(dataProvider = "moves")
  public void eachStepHasOneClass(String what, String before, String after, String expected) {
    assertThat(kinds(CHAIN, before, CHAIN, after)).as(what).isEqualTo(expected);
  }

  @Test
  public void anotherVersionTakesStepsAwayAndBringsNewOnes() {
    String later = CHAIN.replace("1 day after a: c", "3 days after a: c").replace(": d", ": f");
    assertThat(kinds(CHAIN, "10T08; q; by hand", later, "10T08; q; by hand"))
        .isEqualTo("a UNCHANGED, b UNCHANGED, c MOVED, f NOW_DATED, e UNCHANGED, d REMOVED");
  }

  private static String kinds(String one, String before, String other, String after) {
    return compared(reckoned(one, before), reckoned(other, after)).stream()
        .map(step -> step.step() + " " + step.kind())
        .collect(Collectors.joining(", "));
  }

  private static List<Comparison> compared(List<Reckoned> before, List<Reckoned> after) {
    return Comparison.of(before, after, DAYS, ZONE, Instant.parse("2026-12-09T09:00:00Z"));
  }

  @Test
  public void whatIsPastNoWorkingDayOrOnOneDayIsMarked() {
    List<Reckoned> set = reckoned(CHAIN, "10T08; q; by hand; c hand 25; e hand 10");
    Map<String, Comparison> all =
        compared(set, set).stream().collect(Collectors.toMap(c -> c.step().text(), c -> c));
    assertThat(Stream.of("a", "b", "c", "d", "e").map(name -> all.get(name).past()))
        .as("Tuesday is over; at nine on Wednesday is not over at nine")
        .containsExactly(true, false, false, false, false);
    assertThat(all.get("c").off().orElseThrow().why()).contains("Midwinter");
    assertThat(all.get("a").off()).isEmpty();
    assertThat(all.get("d").sameDay()).containsExactly(Name.of("e"));
    assertThat(all.get("e").sameDay()).containsExactly(Name.of("d"));
    assertThat(all.get("a").sameDay()).isEmpty();
  }

  // ---- Reminders -------------------------------------------------------------------------------

  @DataProvider
  public Object[][] reminders() {
    return new Object[][] {
      {"3 working days before", "10", "07T08"},
      {"3 working days before at 16:00", "10", "07T16"},
      {"3 working days before", "10T10", "07T10"},
      {"0 working days before", "12", "11T08"},
      {"1 working day before", "28", "24T08"},
      {"36 hours before", "10T10", "08T22"},
      {"90 minutes before", "10T10", "10T08:30"},
      {
        "2 working days before; remind 1 working day before; remind 2 working days before",
        "10",
        "08T08 09T08"
      },
    };
  }

  @Test(dataProvider = "reminders")
  public void remindersAreCountedFromTheDate(String said, String due, String expected) {
    List<Step.Remind> reminders =
        ChainReader.read("chain: c\nkey date: x\non x, at 01:00: a; remind " + said, House.KNOWN)
            .chain()
            .orElseThrow()
            .steps()
            .get(0)
            .reminders();
    assertThat(
            Reminders.of(reminders, due(due), DAYS, ZONE, LocalTime.of(8, 0)).stream()
                .map(at -> at.toString().substring(8, 16).replace(":00", ""))
                .collect(Collectors.joining(" ")))
        .isEqualTo(expected);
  }

  @Test
  public void whatWasMissedGoesAtOnceUntilItIsDue() {
    List<Instant> all = Stream.of("07", "08", "10").map(ComparisonTest::at).toList();
    Due due = due("11");
    assertThat(Reminders.toGo(all, due, ZONE, at("06"))).isEqualTo(all);
    assertThat(Reminders.toGo(all, due, ZONE, at("09"))).containsExactly(at("09"), at("10"));
    assertThat(Reminders.toGo(all, due, ZONE, at("11"))).containsExactly(at("11"));
    assertThat(Reminders.toGo(all, due, ZONE, at("12"))).isEmpty();
  }

  private static Instant at(String day) {
    return Instant.parse("2026-12-" + day + "T08:00:00Z");
  }
}
