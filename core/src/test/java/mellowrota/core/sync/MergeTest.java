package mellowrota.core.sync;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.time.DaySpan;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The three-way comparison, as a table written by hand and as a property. */
public class MergeTest {

  private static final ZoneId ZONE = ZoneId.of("Europe/London");

  /** What each role may change there, as a word of the table. */
  private static final Answer.Rights LEAD =
      part -> part == Part.TIMES || part == Part.NOTE ? Answer.TAKE : Answer.PROPOSE;

  private static final Answer.Rights SUPPORT =
      part -> part == Part.NOTE ? Answer.TAKE : Answer.PROPOSE;
  private static final Answer.Rights NONE = part -> Answer.PUT_BACK;

  private static Answer.Rights rights(String who) {
    return switch (who) {
      case "lead" -> LEAD;
      case "support" -> SUPPORT;
      default -> NONE;
    };
  }

  /**
   * A content in words: {@code "title @ place | text | 10-12"}, {@code /} for a line end in the
   * text, {@code 10-12 Paris} in another zone, {@code day} for the whole day.
   */
  private static Content content(String words) {
    String[] parts = words.split("\\|", -1);
    String[] head = parts[0].split("@", -1);
    return new Content(
        head[0].strip(),
        head.length > 1 ? head[1].strip() : "",
        parts[1].replace("/", "\n"),
        times(parts[2].strip()));
  }

  private static EntryTimes times(String words) {
    if (words.startsWith("day")) {
      LocalDate first = LocalDate.of(2026, 12, 1);
      return new EntryTimes.AllDay(DaySpan.of(first, first.plusDays(words.equals("day") ? 1 : 2)));
    }
    String[] parts = words.split(" ");
    String[] hours = parts[0].split("-");
    ZoneId zone = parts.length > 1 ? ZoneId.of("Europe/" + parts[1]) : ZONE;
    LocalDateTime day = LocalDate.of(2026, 12, 1).atStartOfDay();
    return new EntryTimes.Timed(
        day.plusHours(Long.parseLong(hours[0])).atZone(zone),
        day.plusHours(Long.parseLong(hours[1])).atZone(zone));
  }

  /** Rights, sent, theirs, ours; then what stands afterwards, and what becomes of each change. */
  @DataProvider
  public Object[][] cases() {
    String base = "Gate @ Lock 7 | Bring planks | 10-12";
    return new Object[][] {
      // Nobody did anything.
      {"lead", base, base, base, "", ""},
      {"none", base, base, base, "", ""},
      // Only we did: it is written, and nothing is told.
      {"lead", base, base, "Gate @ Lock 7 | Bring planks | 11-13", "ours", ""},
      {"lead", base, base, "Gate, lower @ Lock 7 | Bring planks | 10-12", "ours", ""},
      {"lead", base, base, "Gate @ Lock 8 | Bring planks | 10-12", "ours", ""},
      {"lead", base, base, "Gate @ Lock 7 | Bring ropes | 10-12", "ours", ""},
      {"none", base, base, "Gate @ Lock 7 | | 10-12", "ours", ""},
      {"none", base, base, "Gate @ Lock 7 | Bring planks | day", "ours", ""},
      // Only they did.
      {"lead", base, "Gate @ Lock 7 | Bring planks | 11-13", base, "", "TIMES take stays"},
      {"lead", base, "Gate @ Lock 7 | Bring planks | 10-13", base, "", "TIMES take stays"},
      {"lead", base, "Gate @ Lock 7 | Bring planks | day", base, "", "TIMES take stays"},
      {"support", base, "Gate @ Lock 7 | Bring planks | 11-13", base, "", "TIMES propose stays"},
      {"none", base, "Gate @ Lock 7 | Bring planks | 11-13", base, "ours", "TIMES put_back"},
      {"lead", base, "Gate! @ Lock 7 | Bring planks | 10-12", base, "", "TITLE propose stays"},
      {"support", base, "Gate! @ Lock 7 | Bring planks | 10-12", base, "", "TITLE propose stays"},
      {"none", base, "Gate! @ Lock 7 | Bring planks | 10-12", base, "ours", "TITLE put_back"},
      {"lead", base, " @ Lock 7 | Bring planks | 10-12", base, "", "TITLE propose stays"},
      {"lead", base, "Gate @ Lock 8 | Bring planks | 10-12", base, "", "PLACE propose stays"},
      {"lead", base, "Gate @ | Bring planks | 10-12", base, "", "PLACE propose stays"},
      {"none", base, "Gate @ Lock 8 | Bring planks | 10-12", base, "ours", "PLACE put_back"},
      {"lead", base, "Gate @ Lock 7 | Bring ropes | 10-12", base, "", "TEXT propose stays"},
      {"lead", base, "Gate @ Lock 7 | | 10-12", base, "", "TEXT propose stays"},
      {"lead", base, "Gate @ Lock 7 | Now bring planks | 10-12", base, "", "TEXT propose stays"},
      {"lead", base, "Gate @ Lock 7 | Bring planks, two | 10-12", base, "", "TEXT propose stays"},
      {"none", base, "Gate @ Lock 7 | Bring ropes | 10-12", base, "ours", "TEXT put_back"},
      // Notes: lines after ours.
      {"lead", base, "Gate @ Lock 7 | Bring planks/done it | 10-12", base, "", "NOTE take stays"},
      {"support", base, "Gate @ Lock 7 | Bring planks/a/b | 10-12", base, "", "NOTE take stays"},
      {"none", base, "Gate @ Lock 7 | Bring planks/a | 10-12", base, "ours", "NOTE put_back"},
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks//a | 10-12",
        base,
        "Gate @ Lock 7 | Bring planks/a | 10-12",
        "NOTE take stays"
      },
      {
        "lead",
        "Gate @ Lock 7 | | 10-12",
        "Gate @ Lock 7 | a | 10-12",
        "Gate @ Lock 7 | | 10-12",
        "",
        "NOTE take stays"
      },
      // Both, different parts: each has its way.
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate! @ Lock 7 | Bring planks | 10-12",
        "Gate! @ Lock 7 | Bring planks | 11-13",
        "TIMES take stays"
      },
      {
        "support",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 8 | Bring planks | 10-12",
        "Gate @ Lock 8 | Bring planks | 11-13",
        "TIMES propose stays"
      },
      {
        "none",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 8 | Bring planks | 10-12",
        "ours",
        "TIMES put_back"
      },
      {
        "lead",
        base,
        "Gate! @ Lock 7 | Bring planks | 10-12",
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate! @ Lock 7 | Bring planks | 11-13",
        "TITLE propose stays"
      },
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks/a | 10-12",
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 7 | Bring planks/a | 11-13",
        "NOTE take stays"
      },
      // Both, the same part, alike: they agree.
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 7 | Bring planks | 11-13",
        "",
        ""
      },
      {
        "none",
        base,
        "Gate! @ Lock 7 | Bring planks | 10-12",
        "Gate! @ Lock 7 | Bring planks | 10-12",
        "",
        ""
      },
      {
        "lead",
        base,
        "Gate @ Lock 8 | Bring planks | 10-12",
        "Gate @ Lock 8 | Bring planks | 10-12",
        "",
        ""
      },
      {"lead", base, "Gate @ Lock 7 | x | 10-12", "Gate @ Lock 7 | x | 10-12", "", ""},
      // Both, the same part, otherwise: ours is written, theirs proposed or told.
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 7 | Bring planks | 14-16",
        "ours",
        "TIMES propose"
      },
      {
        "support",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 7 | Bring planks | 14-16",
        "ours",
        "TIMES propose"
      },
      {
        "none",
        base,
        "Gate @ Lock 7 | Bring planks | 11-13",
        "Gate @ Lock 7 | Bring planks | 14-16",
        "ours",
        "TIMES put_back"
      },
      {
        "lead",
        base,
        "A @ Lock 7 | Bring planks | 10-12",
        "B @ Lock 7 | Bring planks | 10-12",
        "ours",
        "TITLE propose"
      },
      {
        "lead",
        base,
        "Gate @ A | Bring planks | 10-12",
        "Gate @ B | Bring planks | 10-12",
        "ours",
        "PLACE propose"
      },
      {
        "lead",
        base,
        "Gate @ Lock 7 | a | 10-12",
        "Gate @ Lock 7 | b | 10-12",
        "ours",
        "TEXT propose"
      },
      {
        "none",
        base,
        "Gate @ Lock 7 | a | 10-12",
        "Gate @ Lock 7 | b | 10-12",
        "ours",
        "TEXT put_back"
      },
      // Start, end and zone are one: half of each does not come about.
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks | 9-12",
        "Gate @ Lock 7 | Bring planks | 10-13",
        "ours",
        "TIMES propose"
      },
      {"lead", base, "Gate @ Lock 7 | Bring planks | 10-12 Paris", base, "", "TIMES take stays"},
      {"lead", base, "Gate @ Lock 7 | Bring planks | 11-13 Paris", base, "", ""},
      {"lead", "A@|| day", "A@|| days", "A@|| day", "", "TIMES take stays"},
      {"lead", "A@|| day", "A@|| 0-24", "A@|| day", "", "TIMES take stays"},
      // A note and our new text: both stand, whatever the order.
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks/a | 10-12",
        "Gate @ Lock 7 | Bring ropes | 10-12",
        "Gate @ Lock 7 | Bring ropes/a | 10-12",
        "NOTE take stays"
      },
      {
        "support",
        base,
        "Gate @ Lock 7 | Bring planks/a | 10-12",
        "Gate @ Lock 7 | | 10-12",
        "Gate @ Lock 7 | a | 10-12",
        "NOTE take stays"
      },
      {
        "none",
        base,
        "Gate @ Lock 7 | Bring planks/a | 10-12",
        "Gate @ Lock 7 | b | 10-12",
        "ours",
        "NOTE put_back"
      },
      {
        "lead",
        base,
        "Gate @ Lock 7 | Bring planks/a | 10-12",
        "Gate @ Lock 7 | Bring planks/a/b | 10-12",
        "ours",
        "NOTE take stays"
      },
      // Several at once.
      {
        "lead",
        base,
        "G @ L | Bring planks/a | 11-13",
        base,
        "",
        "TIMES take stays, TITLE propose stays, PLACE propose stays, NOTE take stays"
      },
      {
        "support",
        base,
        "G @ L | t | 11-13",
        base,
        "",
        "TIMES propose stays, TITLE propose stays, PLACE propose stays, TEXT propose stays"
      },
      {
        "none",
        base,
        "G @ L | t | 11-13",
        base,
        "ours",
        "TIMES put_back, TITLE put_back, PLACE put_back, TEXT put_back"
      },
      {
        "lead",
        base,
        "G @ L | Bring planks | 11-13",
        "H @ L | Bring planks | 10-12",
        "H @ L | Bring planks | 11-13",
        "TIMES take stays, TITLE propose"
      },
      // As hosts store it: line ends, blanks, no difference.
      {"lead", base, " Gate @ Lock 7  | Bring planks / | 10-12", base, "", ""},
      {"lead", "A@| a/b | 1-2", "A@| a /b / | 1-2", "A@| a/b | 1-2", "", ""},
      {"none", base, "Gate@Lock 7|Bring planks|10-12", base, "", ""},
      {"lead", base, "Gate @ Lock 7 | Bring  planks | 10-12", base, "", "TEXT propose stays"},
    };
  }

  @Test(dataProvider = "cases")
  public void whoChangedWhat(
      String who, String sent, String theirs, String ours, String written, String becomes) {
    Merge merge = Merge.of(content(sent), content(theirs), content(ours), rights(who));
    assertThat(merge.edits().stream().map(MergeTest::words).collect(Collectors.joining(", ")))
        .isEqualTo(becomes);
    switch (written) {
      case "" -> assertThat(merge.write()).isEmpty();
      case "ours" -> assertThat(merge.write()).contains(content(ours));
      default -> assertThat(merge.stands()).isEqualTo(content(written));
    }
    assertThat(merge.stands()).isEqualTo(merge.write().orElse(content(theirs)));
  }

  private static String words(Edit edit) {
    return edit.part()
        + " "
        + edit.answer().name().toLowerCase(java.util.Locale.ROOT)
        + (edit.standsThere() ? " stays" : "");
  }

  @DataProvider
  public Object[][] deletions() {
    String base = "Gate @ Lock 7 | Bring planks | 10-12";
    String moved = "Gate @ Lock 7 | Bring planks | 11-13";
    return new Object[][] {
      {base, base, true, Merge.Deleted.PROPOSED},
      {base, base, false, Merge.Deleted.PUT_BACK},
      {base, moved, true, Merge.Deleted.PUT_BACK},
      {base, moved, false, Merge.Deleted.PUT_BACK},
    };
  }

  @Test(dataProvider = "deletions")
  public void whatWasDeletedThere(String sent, String ours, boolean hasSay, Merge.Deleted becomes) {
    assertThat(Merge.deleted(content(sent), content(ours), hasSay)).isEqualTo(becomes);
  }

  @DataProvider
  public Object[][] seeds() {
    return IntStream.range(0, 200)
        .mapToObj(seed -> new Object[] {(long) seed})
        .toArray(Object[][]::new);
  }

  private static Content random(SplittableRandom random) {
    List<String> some = List.of("", "a", "b", "c d");
    String from = List.of("8-9", "8-10", "9-10", "day").get(random.nextInt(4));
    return new Content(
        some.get(random.nextInt(4)),
        some.get(random.nextInt(4)),
        some.get(random.nextInt(4)) + (random.nextBoolean() ? "" : "\n" + random.nextInt(3)),
        times(from));
  }

  /**
   * No change that anybody made vanishes: ours stands there afterwards; theirs stands there, or is
   * in the list of what was changed with its value.
   */
  @Test(dataProvider = "seeds")
  public void noChangeVanishes(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    for (int i = 0; i < 200; i++) {
      Content sent = random(random);
      Content theirs = random(random);
      Content ours = random(random);
      Answer[] answers =
          Stream.generate(() -> Answer.values()[random.nextInt(3)])
              .limit(Part.values().length)
              .toArray(Answer[]::new);
      Merge merge = Merge.of(sent, theirs, ours, part -> answers[part.ordinal()]);
      for (Part part : List.of(Part.TIMES, Part.TITLE, Part.PLACE, Part.TEXT)) {
        boolean theyDid = !theirs.agrees(sent, part);
        boolean weDid = !ours.agrees(sent, part);
        boolean told =
            merge.edits().stream()
                .anyMatch(
                    edit ->
                        edit.part() == part && edit.theirs().equals(theirs.of(part))
                            || part == Part.TEXT
                                && edit.part() == Part.NOTE
                                && theirs.text().endsWith((String) edit.theirs()));
        String what =
            "%s: sent %s, theirs %s, ours %s, %s"
                .formatted(part, sent, theirs, ours, Arrays.toString(answers));
        if (weDid && part == Part.TEXT) {
          assertThat(merge.stands().text()).as(what).startsWith(ours.text());
        } else if (weDid) {
          assertThat(merge.stands().agrees(ours, part)).as(what).isTrue();
        }
        if (theyDid) {
          assertThat(told || theirs.agrees(ours, part)).as(what).isTrue();
        } else {
          assertThat(told).as(what).isFalse();
          assertThat(merge.stands().agrees(ours, part)).as(what).isTrue();
        }
      }
      // Looked at again, nothing else happened.
      Content held = Hold.on(ours, holds(merge, theirs, ours));
      assertThat(Merge.of(merge.stands(), merge.stands(), held, part -> answers[part.ordinal()]))
          .as("once more: sent %s, theirs %s, ours %s", sent, theirs, ours)
          .isEqualTo(new Merge(java.util.Optional.empty(), merge.stands(), List.of()));
    }
  }

  private static List<Hold> holds(Merge merge, Content theirs, Content ours) {
    return merge.edits().stream()
        .filter(Edit::standsThere)
        .map(
            edit ->
                new Hold(
                    edit.part(),
                    edit.part() == Part.NOTE
                        ? new Content("", "", (String) edit.theirs(), theirs.times())
                        : theirs,
                    ours))
        .toList();
  }
}
