package mellowrota.core.rule;

import static mellowrota.core.Worlds.NOW;
import static mellowrota.core.Worlds.as;
import static mellowrota.core.Worlds.dueAt;
import static mellowrota.core.Worlds.lead;
import static mellowrota.core.Worlds.ticket;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import mellowrota.core.Worlds;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Where tickets land by the rules a house begins with, one sentence a case. */
public class TicketLandingTest {

  private static final Instant MONDAY = Instant.parse("2026-11-23T12:40:00Z");

  private static Worlds.Builder crew() {
    return Worlds.world()
        .coordinator(1, "Hana")
        .worker(2, "Ines")
        .worker(3, "Tam")
        .worker(4, "Wren")
        .person(
            new Person(
                PersonId.of(5), "Gone", Person.Standing.LEFT, Person.AccountRight.NONE, Set.of()))
        .team(1, "Thornmere", 2, 4)
        .team(2, "Saltgate", 3)
        .team(3, "Everyone")
        .joins(3, Holder.of(TeamId.of(1)), LocalDate.of(2026, 1, 1))
        .place(7, "L7", "Lock 7");
  }

  private static WorkRecord.Builder inesLeads() {
    return ticket().due(dueAt("2026-11-27T13:00")).assignments(List.of(lead(2, MONDAY)));
  }

  private static Set<String> names(Worlds.World world, WorkRecord record) {
    return world.router().land(record).stream()
        .map(l -> world.calendars().find(l.calendar()).orElseThrow().name())
        .collect(Collectors.toSet());
  }

  @DataProvider
  Object[][] landings() {
    return new Object[][] {
      {
        "with a Lead: own, direct team, date list, master",
        inesLeads(),
        Set.of("Ines, own", "Thornmere", "Due times", "Master")
      },
      {
        "with nobody: date list and master",
        ticket().due(dueAt("2026-11-27T13:00")),
        Set.of("Due times", "Master")
      },
      {"without a due time: nowhere", ticket().assignments(List.of(lead(2, MONDAY))), Set.of()},
      {"a draft: nowhere", inesLeads().state(State.DRAFT), Set.of()},
      {"called off: nowhere", inesLeads().state(State.CANCELLED), Set.of()},
      {
        "tentative: as confirmed",
        inesLeads().state(State.TENTATIVE),
        Set.of("Ines, own", "Thornmere", "Due times", "Master")
      },
      {
        "done: stays with a tick where the rule says so",
        inesLeads().state(State.DONE),
        Set.of("Ines, own", "Master")
      },
      {
        "private: only own calendars of people in a role",
        inesLeads().isPrivate(true),
        Set.of("Ines, own")
      },
      {
        "two people of two teams: both own, both teams",
        inesLeads().assignments(List.of(lead(2, MONDAY), as(RoleId.SUPPORT, 3))),
        Set.of("Ines, own", "Tam, own", "Thornmere", "Saltgate", "Due times", "Master")
      },
      {
        "Informed has no own entry by these rules",
        inesLeads().assignments(List.of(lead(2, MONDAY), as(RoleId.INFORMED, 3))),
        Set.of("Ines, own", "Thornmere", "Due times", "Master")
      },
      {
        "who has left gets nothing, nor does their team",
        inesLeads().assignments(List.of(lead(5, MONDAY))),
        Set.of("Due times", "Master")
      },
      {
        "a team as Lead: its members' own, and itself",
        inesLeads()
            .assignments(List.of(new Assignment(1, Holder.of(TeamId.of(1)), RoleId.LEAD, MONDAY))),
        Set.of("Ines, own", "Wren, own", "Thornmere", "Due times", "Master")
      },
      {
        "not sent: on no calendar",
        inesLeads()
            .rulings(List.of(new Ruling(Ruling.Sort.NOT_SENT, 0, OptionalInt.empty(), "test run"))),
        Set.of()
      },
      {
        "never here: all but there",
        inesLeads()
            .rulings(List.of(new Ruling(Ruling.Sort.NEVER_HERE, 1, OptionalInt.empty(), "secret"))),
        Set.of("Ines, own", "Thornmere", "Due times")
      },
      {
        "also here: there too",
        inesLeads()
            .rulings(
                List.of(new Ruling(Ruling.Sort.ALSO_HERE, 3007, OptionalInt.empty(), "asked"))),
        Set.of("Ines, own", "Thornmere", "Due times", "Master", "Lock 7, place")
      },
      {
        "also here never overrides privacy",
        inesLeads()
            .isPrivate(true)
            .rulings(
                List.of(new Ruling(Ruling.Sort.ALSO_HERE, 3007, OptionalInt.empty(), "asked"))),
        Set.of("Ines, own")
      },
    };
  }

  @Test(dataProvider = "landings")
  public void aTicketLands(String how, WorkRecord.Builder record, Set<String> calendars) {
    assertThat(names(crew().build(), record.build())).as(how).isEqualTo(calendars);
  }

  private static Entry entryOn(Worlds.World world, WorkRecord record, String calendar) {
    return world.router().land(record).stream()
        .filter(l -> l.calendar().equals(world.calendar(calendar).id()))
        .map(Landing.Lands::entry)
        .findFirst()
        .orElseThrow(() -> new AssertionError("nothing on " + calendar));
  }

  private static EntryTimes timed(String from, String until) {
    return new EntryTimes.Timed(
        Instant.parse(from).atZone(Worlds.LONDON), Instant.parse(until).atZone(Worlds.LONDON));
  }

  @Test
  public void theRailRunsFromTheHandOverToTheDueTime() {
    Worlds.World world = crew().build();
    Entry own = entryOn(world, inesLeads().build(), "Ines, own");
    assertThat(own.times()).isEqualTo(timed("2026-11-23T12:40:00Z", "2026-11-27T13:00:00Z"));
    assertThat(own.key().family()).isEqualTo(Family.GIVEN_DUE);
    assertThat(own.marks().busy()).as("given to due is free").isFalse();
  }

  @Test
  public void theDateListHasAQuarterOfAnHourEndingAtTheDueTime() {
    Entry mark = entryOn(crew().build(), inesLeads().build(), "Due times");
    assertThat(mark.times()).isEqualTo(timed("2026-11-27T12:45:00Z", "2026-11-27T13:00:00Z"));
    assertThat(mark.key().family()).isEqualTo(Family.DUE);
  }

  @Test
  public void aDueTimeBeforeTheHandOverIsLateWhenGiven() {
    Worlds.World world = crew().build();
    WorkRecord late = inesLeads().due(dueAt("2026-11-23T12:40")).build();
    Entry own = entryOn(world, late, "Ines, own");
    assertThat(own.marks().late()).isTrue();
    assertThat(own.times()).isEqualTo(timed("2026-11-23T12:25:00Z", "2026-11-23T12:40:00Z"));
    Entry onTime = entryOn(world, inesLeads().build(), "Ines, own");
    assertThat(own.uid()).as("the same entry").isEqualTo(onTime.uid());
  }

  @Test
  public void withoutALeadTheMasterHasADueMarkHandedToNobody() {
    Worlds.World world = crew().build();
    WorkRecord supported = inesLeads().assignments(List.of(as(RoleId.SUPPORT, 3))).build();
    Entry master = entryOn(world, supported, "Master");
    assertThat(master.marks().unhanded()).isTrue();
    assertThat(master.marks().late()).isFalse();
    assertThat(master.key().family()).isEqualTo(Family.GIVEN_DUE);
    assertThat(entryOn(world, supported, "Tam, own").marks().unhanded()).isFalse();
  }

  @Test
  public void offOwnCalendarsThePresentLeadsHandOverCounts() {
    Worlds.World world = crew().build();
    Instant later = Instant.parse("2026-11-24T08:00:00Z");
    WorkRecord record =
        inesLeads()
            .assignments(
                List.of(
                    lead(2, MONDAY),
                    new Assignment(1, Holder.of(PersonId.of(3)), RoleId.SUPPORT, later)))
            .build();
    assertThat(entryOn(world, record, "Saltgate").times().from()).isEqualTo(MONDAY);
    assertThat(entryOn(world, record, "Tam, own").times().from()).isEqualTo(later);
  }

  @Test
  public void throughATeamTheFirstDayOfMembershipCounts() {
    Worlds.World world =
        crew()
            .membership(
                new Membership(
                    TeamId.of(2),
                    Holder.of(PersonId.of(4)),
                    LocalDate.of(2026, 11, 25),
                    Optional.empty()))
            .build();
    WorkRecord record =
        inesLeads()
            .assignments(List.of(new Assignment(1, Holder.of(TeamId.of(2)), RoleId.LEAD, MONDAY)))
            .build();
    assertThat(entryOn(world, record, "Tam, own").times().from()).isEqualTo(MONDAY);
    assertThat(entryOn(world, record, "Wren, own").times().from())
        .isEqualTo(Instant.parse("2026-11-25T00:00:00Z"));
  }

  @Test
  public void withADueDateTheRailIsWholeDays() {
    WorkRecord record =
        inesLeads().due(Optional.of(new Due.On(LocalDate.of(2026, 11, 27)))).build();
    Entry own = entryOn(crew().build(), record, "Ines, own");
    assertThat(own.times())
        .isEqualTo(
            new EntryTimes.AllDay(
                mellowrota.core.time.DaySpan.through(
                    LocalDate.of(2026, 11, 23), LocalDate.of(2026, 11, 27))));
  }

  @Test
  public void aDueDateOnTheDayOfHandOverIsNotLate() {
    WorkRecord record =
        inesLeads().due(Optional.of(new Due.On(LocalDate.of(2026, 11, 23)))).build();
    assertThat(entryOn(crew().build(), record, "Ines, own").marks().late()).isFalse();
    WorkRecord earlier =
        inesLeads().due(Optional.of(new Due.On(LocalDate.of(2026, 11, 22)))).build();
    assertThat(entryOn(crew().build(), earlier, "Ines, own").marks().late()).isTrue();
  }

  @Test
  public void handedAwayAndBackTheIdentifierIsTheSame() {
    Worlds.World world = crew().build();
    Entry before = entryOn(world, inesLeads().build(), "Ines, own");
    WorkRecord toTam = inesLeads().assignments(List.of(lead(3, NOW))).build();
    assertThat(entryOn(world, toTam, "Tam, own").uid()).isNotEqualTo(before.uid());
    WorkRecord back = inesLeads().assignments(List.of(lead(2, NOW))).build();
    assertThat(entryOn(world, back, "Ines, own").uid()).isEqualTo(before.uid());
  }

  @Test
  public void rulesThatMeetMakeOneEntryByTheEarliest() {
    Worlds.World world =
        crew()
            .rules(
                List.of(
                    Worlds.rule(9, new Target.OwnOf(Worlds.WORKING), Shape.GIVEN_DUE, 2, true),
                    Worlds.rule(
                        4, new Target.OwnOf(Set.of(RoleId.LEAD)), Shape.GIVEN_DUE, 3, false)))
            .build();
    List<Landing.Lands> landed = world.router().land(inesLeads().build());
    assertThat(landed).hasSize(1);
    assertThat(landed.get(0).entry().rules()).containsExactly(4L, 9L);
    assertThat(landed.get(0).entry().wording()).contains(mellowrota.core.entry.WordingId.of(3));
    assertThat(world.router().land(inesLeads().state(State.DONE).build()))
        .as("the earliest says it comes off")
        .isEmpty();
  }

  @DataProvider
  Object[][] absences() {
    return new Object[][] {
      {inesLeads().state(State.DRAFT), "Master", Reason.Code.DRAFT},
      {inesLeads().state(State.CANCELLED), "Master", Reason.Code.CANCELLED},
      {inesLeads().isPrivate(true), "Thornmere", Reason.Code.PRIVATE},
      {inesLeads().state(State.DONE), "Thornmere", Reason.Code.RULE_DONE},
      {inesLeads().due(Optional.empty()), "Master", Reason.Code.RULE_NO_TIME},
      {inesLeads(), "Wren, own", Reason.Code.NO_RULE},
      {inesLeads(), "Lock 7, place", Reason.Code.NO_RULE},
      {inesLeads().kind(mellowrota.core.work.Kind.JOB), "Master", Reason.Code.RULE_KIND},
    };
  }

  /** Of two rules for tickets on the master, one lacks a tag, the other a tag and a team. */
  private static Worlds.World nearAndFar() {
    Condition ticket = new Condition.KindIs(Set.of(Kind.TICKET));
    Condition tagged = new Condition.Tagged("closure");
    return crew()
        .rules(
            List.of(
                master(1, new Condition.KindIs(Set.of(Kind.JOB))),
                master(2, ticket, tagged, new Condition.TeamIs(TeamId.of(2))),
                master(3, ticket, tagged)))
        .build();
  }

  private static LandingRule master(long id, Condition... parts) {
    return Worlds.rule(
        id, new Condition.All(List.of(parts)), new Target.Master(), Shape.DUE_MARK, 2, true);
  }

  @Test
  public void whyNotNamesWhatTheNearestRuleLacks() {
    assertThat(whyNot(nearAndFar(), detail -> true)).isEqualTo(Reason.of(Reason.Code.RULE_TAG, 3));
  }

  @Test
  public void whyNotRestsOnNothingThatTheAskerMayNotKnow() {
    Predicate<DetailKey> noTags = detail -> !detail.equals(DetailKey.TAGS);
    Worlds.World world = nearAndFar();
    Reason told = Reason.of(Reason.Code.RULE_NOT_MET, 3);
    assertThat(whyNot(world, noTags)).isEqualTo(told);
    WorkRecord tagged = inesLeads().tags(Set.of("other")).build();
    assertThat(whyNot(world, tagged, noTags)).isEqualTo(told);
  }

  private static Reason whyNot(Worlds.World world, Predicate<DetailKey> known) {
    return whyNot(world, inesLeads().build(), known);
  }

  private static Reason whyNot(Worlds.World world, WorkRecord record, Predicate<DetailKey> known) {
    List<Landing> told = world.router().explain(record, world.calendar("Master"), known);
    return ((Landing.Nowhere) told.get(0)).why();
  }

  @Test(dataProvider = "absences")
  public void everyAbsenceHasItsReason(WorkRecord.Builder record, String on, Reason.Code why) {
    Worlds.World world = crew().build();
    List<Landing> told = world.router().explain(record.build(), world.calendar(on), detail -> true);
    assertThat(told).hasSize(1);
    assertThat(((Landing.Nowhere) told.get(0)).why().code()).isEqualTo(why);
  }

  /** Whatever its rule says of busy. */
  @Test
  public void workThatTakesNoTimeStandsAsFree() {
    Worlds.World world =
        crew()
            .rules(
                List.of(
                    Worlds.rule(
                        1,
                        new Condition.KindIs(Set.of(Kind.TICKET)),
                        new Target.OwnOf(Worlds.WORKING),
                        Shape.SPAN,
                        1,
                        true)))
            .build();
    When.Timed span =
        new When.Timed(
            MONDAY.atZone(Worlds.LONDON), MONDAY.plusSeconds(3600).atZone(Worlds.LONDON));
    WorkRecord.Builder record =
        inesLeads().visits(List.of(new Visit(1, Optional.of(span), MarginSetting.UNSET)));
    for (boolean free : new boolean[] {false, true}) {
      List<Landing.Lands> landed = world.router().land(record.free(free).build());
      assertThat(landed).hasSize(1);
      assertThat(landed.get(0).entry().marks().busy()).isEqualTo(!free);
    }
  }
}
