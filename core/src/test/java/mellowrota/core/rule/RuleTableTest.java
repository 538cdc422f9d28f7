package mellowrota.core.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.TreeSet;
import mellowrota.core.Worlds;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Sixty rules and forty records, written as sentences. What the first twenty rules do with the
 * first fifteen records is typed by hand; everything is compared with a slow router that reads
 * LANDING aloud.
 */
public class RuleTableTest {

  /** the first fifteen called A to O in the table. */
  private static final List<String> RECORDS =
      List.of(
          "ticket confirmed; due 27T13:00; Lead Ines; by Hana",
          "ticket confirmed; due 27T13:00",
          "ticket tentative; due 28; Lead Tam; Support Wren; at Lock; phone",
          "ticket done; due 27T13:00; Lead Ines; tags closure",
          "ticket draft; due 27T13:00; Lead Ines",
          "ticket cancelled; due 27T13:00; Lead Ines",
          "job confirmed; span 26T08:00 26T12:00; margins 30 20; Lead Ines; Support Tam; at Lock; team Thornmere; by Hana",
          "job confirmed; days 26 28; Lead Wren; at Basin",
          "job tentative; span 26T22:30 27T02:00; Lead Thornmere",
          "shift confirmed; span 26T06:00 26T14:00; Lead Dov; at Basin; tags closure",
          "deadline confirmed; due 30; Lead Hana; by Hana",
          "job confirmed; span 26T08:00 26T12:00; Lead Ines; private",
          "ticket confirmed; due 25T08:00; Lead Ines",
          "job confirmed; Lead Ines; at Lock",
          "job confirmed; span 26T08:00 26T12:00; Lead Bram; Informed Ines",
          "job confirmed; span 26T08:00 26T12:00; Lead Ines; span 27T23:00 28T05:00; Lead Wren; Support Saltgate",
          "job done tentative; span 24T08:00 24T12:00; Lead Dov; at Lock; tags closure",
          "ticket confirmed; due 24; Lead Ines 20T10:00",
          "ticket confirmed; due 27T13:00; Lead Saltgate 24T07:00; phone",
          "ticket confirmed; due 27T13:00; Lead Ines 25T11:00; Lead Tam 24T11:00; Supervisor Ines 23T08:00",
          "job confirmed; span 26T20:00 27T00:00; margins 0 45; Lead Nell; Support Dov; at Basin",
          "ticket confirmed; due 27T13:00; Informed Everyone; private; phone",
          "shift tentative; days 26 26; Lead Wren; personal",
          "ticket confirmed; due 27T13:00; Lead Ines; personal; by Hana",
          "deadline done; due 20; Lead Hana; at Lock; team Saltgate",
          "job confirmed; span 26T12:00 26T12:00; Lead Ines; phone",
          "job confirmed; span 26T00:00 27T00:00; Lead Everyone; team Everyone",
          "ticket done tentative; due 25T08:00; Lead Ines",
          "ticket confirmed; due 25T09:00; Lead Ines",
          "shift confirmed; span 26T06:00 26T14:00; Supervisor Dov; Informed Wren; team Saltgate",
          "job tentative; due 29; span 28T08:00 28T09:00; Support Thornmere; Lead Tam; at Lock",
          "ticket tentative; due 28T10:00; Support Ines 26T08:00; Informed Tam; tags closure; tags swans",
          "deadline confirmed; due 30; Lead Thornmere; private",
          "deadline tentative; due 26T09:30; Supervisor Bram; Lead Nell",
          "job confirmed; days 26 27; Lead Ines; days 29 29; Support Tam; margins 10 10; at Basin; tags swans",
          "ticket confirmed; Lead Ines; phone; at Lock",
          "ticket confirmed; due 27T13:00; Lead Hana; Support Hana; Supervisor Hana; by Hana",
          "job cancelled; span 26T08:00 26T12:00; Lead Ines; tags closure",
          "shift done; span 25T22:00 26T06:00; Lead Wren 20T08:00; at Basin; phone; by Hana",
          "job draft; span 26T08:00 26T12:00; Lead Ines; private; tags closure; phone");

  /**
   * A rule, and what it does with A to O, a cell each: calendars with the family, g given → due, d
   * due mark, w the span; f free though a span, ! late, ? handed to nobody; - nowhere.
   */
  private static final List<String> BY_HAND =
      List.of(
          """
          When a ticket and is confirmed, lands on own of Lead as given to due
          Ines:g | - | - | Ines:g | - | - | - | - | - | - | - | - | Ines:g! | - | -""",
          """
          When anything, lands on Master as as it comes
          Master:g | Master:d | Master:g | Master:g | - | - | Master:w | Master:w | Master:w | Master:w | Master:g | - | Master:g! | - | Master:w""",
          """
          When a job or a shift, lands on own of Lead, Support as span
          - | - | - | - | - | - | Ines:w Tam:w | Wren:w | Ines:wf Tam:wf | Dov:w | - | Ines:w | - | - | Bram:w""",
          """
          When a job and is confirmed, lands on teams of Lead as span
          - | - | - | - | - | - | Thornmere:w | Saltgate:w | - | - | - | - | - | - | -""",
          """
          When is tentative, lands on teams of Lead, Support as as it comes
          - | - | Saltgate:g Thornmere:g | - | - | - | - | - | Thornmere:w | - | - | - | - | - | -""",
          """
          When anything, lands on the place as whole day
          - | - | Lock:w | - | - | - | Lock:w | Basin:w | - | Basin:w | - | - | - | - | -""",
          """
          When is tagged closure, lands on Closures as span
          - | - | - | - | - | - | - | - | - | Closures:w | - | - | - | - | -""",
          """
          When anything, lands on Due as due mark
          Due:d | Due:d | Due:d | Due:d | - | - | - | - | - | - | Due:d | - | Due:d | - | -""",
          """
          When anything, lands on Due as due mark; comes off
          Due:d | Due:d | Due:d | - | - | - | - | - | - | - | Due:d | - | Due:d | - | -""",
          """
          When a ticket and has a phone, lands on own of Support as due mark
          - | - | Wren:d | - | - | - | - | - | - | - | - | - | - | - | -""",
          """
          When is private, lands on own of Lead + Master as as it comes
          - | - | - | - | - | - | - | - | - | - | - | Ines:w | - | - | -""",
          """
          When belongs to Thornmere, lands on teams of Support as span
          - | - | - | - | - | - | Thornmere:w | - | - | - | - | - | - | - | -""",
          """
          When a job and starts between 22:00 to 06:00, lands on Master as span
          - | - | - | - | - | - | - | - | Master:w | - | - | - | - | - | -""",
          """
          When is all day, lands on the place as span
          - | - | - | - | - | - | - | Basin:w | - | - | - | - | - | - | -""",
          """
          When not is at Lock, lands on Master as given to due
          Master:g | Master:g? | - | Master:g | - | - | - | - | - | - | Master:g | - | Master:g! | - | -""",
          """
          When has a Support, lands on own of Lead, Support as as it comes
          - | - | Tam:g Wren:g | - | - | - | Ines:w Tam:w | - | - | - | - | - | - | - | -""",
          """
          When was made by Hana, lands on Master as whole day, free
          Master:wf | - | - | - | - | - | Master:wf | - | - | - | Master:wf | - | - | - | -""",
          """
          When a shift or deadline, lands on own of Lead as due mark
          - | - | - | - | - | - | - | - | - | - | Hana:d | - | - | - | -""",
          """
          When any of a ticket | is tagged closure, lands on teams of Lead as as it comes
          Thornmere:g | - | Thornmere:g | Thornmere:g | - | - | - | - | - | Saltgate:w | - | - | Thornmere:g! | - | -""",
          """
          When a job, lands on own of Informed + teams of Informed as span
          - | - | - | - | - | - | - | - | - | - | - | - | - | - | Ines:w Thornmere:w""");

  private static final List<String> MORE =
      List.of(
          "When a job, lands on own of Lead, Support, Supervisor, Informed as span with margins",
          "When a job, lands on Master as span with margins, free",
          "When a job, lands on own of Lead as span with margins; comes off",
          "When anything, lands on own of Supervisor as as it comes",
          "When anything, lands on own of Lead, Supervisor as given to due",
          "When anything, lands on own of Informed as as it comes, busy",
          "When is done, lands on Master as whole day",
          "When is done, lands on Master as as it comes; comes off",
          "When is tentative or confirmed, lands on the place as as it comes",
          "When a ticket or a deadline, lands on Due + Master as due mark, busy",
          "When has a phone, lands on Closures + the place as as it comes",
          "When not has a phone, lands on Closures as as it comes",
          "When is tagged swans and not is tagged closure, lands on Closures as whole day",
          "When belongs to Saltgate, lands on teams of Lead, Supervisor as as it comes",
          "When belongs to Everyone, lands on own of Lead + Master as span",
          "When is at Basin and a job, lands on teams of Lead, Support as whole day",
          "When starts between 06:00 to 22:00, lands on Master as span",
          "When starts between 23:00 to 00:00, lands on Master as span",
          "When starts between 00:00 to 00:00, lands on Closures as span",
          "When starts between 20:00 to 20:00, lands on Closures as whole day",
          "When not is all day, lands on the place as as it comes",
          "When is private, lands on own of Lead, Support, Informed as as it comes",
          "When not is private, lands on own of Lead as whole day; comes off",
          "When was made by Ines and a ticket, lands on teams of Lead as given to due",
          "When not was made by Hana, lands on Closures as due mark",
          "When has a Lead and has a Support, lands on Master as as it comes",
          "When not has a Lead, lands on Due as as it comes",
          "When has a Informed, lands on teams of Informed, Lead as as it comes",
          "When has a Supervisor, lands on own of Lead, Support, Supervisor as as it comes, free",
          "When any of is at Lock | belongs to Saltgate, lands on Master + Closures as as it comes",
          "When any of a shift | is all day | is private, lands on own of Lead, Supervisor as whole day",
          "When any of is draft | is cancelled, lands on Master as as it comes",
          "When is draft or cancelled or done, lands on Master as as it comes",
          "When is confirmed and not a ticket, lands on teams of Lead, Support, Supervisor, Informed as span",
          "When a deadline, lands on Master + Due + own of Lead as given to due",
          "When a deadline and is confirmed, lands on own of Lead as whole day, busy",
          "When a shift, lands on Master + the place + own of Lead as span with margins",
          "When a ticket, lands on own of Lead + own of Support as given to due",
          "When a ticket, lands on own of Lead + teams of Lead + Master + Due as given to due; comes off",
          "When anything, lands on own of Lead, Support, Supervisor, Informed + teams of Lead, Support, Supervisor, Informed + the place + Master + Due + Closures as as it comes");

  private final Worlds.World world = Sentences.world().build();
  private final List<WorkRecord> records = new ArrayList<>();
  private final List<LandingRule> rules = new ArrayList<>();

  public RuleTableTest() {
    RECORDS.forEach(text -> records.add(Sentences.record(records.size() + 1, text)));
    BY_HAND.forEach(
        row -> rules.add(Sentences.rule(rules.size() + 1, row.lines().toList().get(0))));
    MORE.forEach(text -> rules.add(Sentences.rule(rules.size() + 1, text)));
  }

  @DataProvider
  public Object[][] byHand() {
    Object[][] cells = new Object[BY_HAND.size()][];
    for (int i = 0; i < cells.length; i++) {
      cells[i] = new Object[] {i, BY_HAND.get(i).lines().toList().get(1)};
    }
    return cells;
  }

  @Test(dataProvider = "byHand")
  public void landsAsItIsTyped(int rule, String row) {
    String[] cells = row.split(" \\| ");
    assertThat(cells).as("a cell for each of A to O").hasSize(15);
    for (int i = 0; i < cells.length; i++) {
      assertThat(cell(router(List.of(rules.get(rule))), records.get(i)))
          .as("%s: %s", BY_HAND.get(rule).lines().toList().get(0), RECORDS.get(i))
          .isEqualTo(cells[i]);
    }
  }

  private Router router(List<LandingRule> some) {
    return router(world, some);
  }

  private static Router router(Worlds.World world, List<LandingRule> some) {
    return new Router(world.crew(), world.calendars(), world.places(), world.margins(), some);
  }

  private static String cell(Router router, WorkRecord record, Worlds.World world) {
    TreeSet<String> found = new TreeSet<>();
    for (Landing.Lands lands : router.land(record)) {
      Entry entry = lands.entry();
      boolean free = entry.key().family() == Family.WORK && !entry.marks().busy();
      found.add(
          Sentences.name(world.calendars().find(lands.calendar()).orElseThrow())
              + ":"
              + letter(entry.key().family())
              + (free ? "f" : "")
              + (entry.marks().late() ? "!" : "")
              + (entry.marks().unhanded() ? "?" : ""));
    }
    return found.isEmpty() ? "-" : String.join(" ", found);
  }

  private String cell(Router router, WorkRecord record) {
    return cell(router, record, world);
  }

  private static String letter(Family family) {
    return switch (family) {
      case WORK -> "w";
      case GIVEN_DUE -> "g";
      case DUE -> "d";
    };
  }

  /** Some of everybody who may settle margins do, on one side or both. */
  private static MarginSettings someMargins() {
    MarginSetting before = new MarginSetting(Optional.of(Duration.ofMinutes(10)), Optional.empty());
    MarginSetting after = new MarginSetting(Optional.empty(), Optional.of(Duration.ofMinutes(25)));
    MarginSetting none = MarginSetting.of(Margins.NONE);
    return new MarginSettings(
        MarginSetting.of(new Margins(Duration.ofMinutes(3), Duration.ofMinutes(4))),
        Map.of(Kind.JOB, before, Kind.SHIFT, none),
        Map.of(PlaceId.of(1), after),
        Map.of(PersonId.of(1), none, PersonId.of(2), after));
  }

  /** All 2 400 cells, with margins settled, as the slow router says them side by side. */
  @Test
  public void marginsAreThoseOfTheFirstWhoSaysAnything() {
    Worlds.World settled = Sentences.world().margins(someMargins()).build();
    int other = 0;
    for (LandingRule rule : rules) {
      for (WorkRecord record : records) {
        Map<String, String> here = found(settled, List.of(rule), record);
        assertThat(here).isEqualTo(new SlowRouter(settled, List.of(rule)).land(record));
        other += here.equals(found(world, List.of(rule), record)) ? 0 : 1;
      }
    }
    assertThat(other).as("cells that stand at other times for it").isGreaterThan(15);
  }

  /** All 2 400 cells, with times and marks. */
  @Test
  public void eachRuleLandsEachRecordAsTheSlowRouterDoes() {
    int lands = 0;
    for (LandingRule rule : rules) {
      for (WorkRecord record : records) {
        lands += requireSame(List.of(rule), record);
      }
    }
    assertThat(rules.size() * records.size()).isEqualTo(2400);
    assertThat(lands).as("cells in which something lands").isGreaterThan(400);
  }

  /** Rules that meet: 2 000 sets of up to eight rules in any order. */
  @Test
  public void rulesThatMeetLandAsTheSlowRouterSays() {
    SplittableRandom random = new SplittableRandom(7);
    for (int i = 0; i < 2_000; i++) {
      List<LandingRule> some = new ArrayList<>();
      for (int k = 1 + random.nextInt(8); k > 0; k--) {
        LandingRule one = rules.get(random.nextInt(rules.size()));
        if (!some.contains(one)) {
          some.add(one);
        }
      }
      requireSame(positioned(some), records.get(random.nextInt(records.size())));
    }
  }

  /** The same in the order in which they stand here. */
  private static List<LandingRule> positioned(List<LandingRule> some) {
    List<LandingRule> found = new ArrayList<>();
    for (LandingRule rule : some) {
      found.add(
          new LandingRule(
              rule.id(),
              found.size(),
              true,
              rule.when(),
              rule.targets(),
              rule.shape(),
              rule.wording(),
              rule.busy(),
              rule.with(),
              rule.whenDone(),
              false,
              ""));
    }
    return found;
  }

  private static Map<String, String> found(
      Worlds.World world, List<LandingRule> some, WorkRecord record) {
    Map<String, String> found = new TreeMap<>();
    for (Landing.Lands lands : router(world, some).land(record)) {
      Entry entry = lands.entry();
      found.put(
          "%s %s %s"
              .formatted(
                  Sentences.name(world.calendars().find(lands.calendar()).orElseThrow()),
                  entry.key().visit(),
                  letter(entry.key().family())),
          "%s %s%s%s%s"
              .formatted(
                  letter(entry.key().family()),
                  times(entry.times()),
                  entry.marks().late() ? " !" : "",
                  entry.marks().unhanded() ? " ?" : "",
                  entry.marks().busy() ? " busy" : " free"));
    }
    return found;
  }

  private int requireSame(List<LandingRule> some, WorkRecord record) {
    Map<String, String> found = found(world, some, record);
    Map<String, String> expected = new SlowRouter(world, some).land(record);
    assertThat(found)
        .as(
            "rules %s, %s",
            Arrays.toString(some.stream().map(LandingRule::id).toArray()),
            RECORDS.get((int) record.id().value() - 1))
        .isEqualTo(expected);
    return found.isEmpty() ? 0 : 1;
  }

  private static String times(EntryTimes times) {
    if (times instanceof EntryTimes.Timed timed) {
      return timed.start().toLocalDateTime() + "/" + timed.end().toLocalDateTime();
    }
    EntryTimes.AllDay days = (EntryTimes.AllDay) times;
    return days.days().first() + "/" + days.days().until();
  }
}
