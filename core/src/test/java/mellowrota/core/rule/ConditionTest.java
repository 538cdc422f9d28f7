package mellowrota.core.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import mellowrota.core.Worlds;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.State;
import mellowrota.core.work.ValueTest;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ConditionTest {

  private static Visit from(String local) {
    var start = LocalTimes.resolve(LocalDateTime.parse(local), Worlds.LONDON);
    return new Visit(
        1, Optional.of(new When.Timed(start, start.plusHours(2))), MarginSetting.UNSET);
  }

  private static final Visit ALL_DAY =
      new Visit(1, Optional.of(new When.AllDay(DaySpan.ofDay(Worlds.TODAY))), MarginSetting.UNSET);

  @DataProvider
  Object[][] startHours() {
    return new Object[][] {
      {"06:00", "14:00", from("2026-11-25T06:00"), true},
      {"06:00", "14:00", from("2026-11-25T13:59"), true},
      {"06:00", "14:00", from("2026-11-25T14:00"), false},
      {"22:00", "06:00", from("2026-11-25T23:30"), true},
      {"22:00", "06:00", from("2026-11-25T05:59"), true},
      {"22:00", "06:00", from("2026-11-25T06:00"), false},
      {"00:00", "23:59", ALL_DAY, false},
      {"00:00", "23:59", Visit.bare(1), false},
    };
  }

  @Test(dataProvider = "startHours")
  public void startHoursAreHalfOpenAndMayCrossMidnight(
      String from, String until, Visit visit, boolean holds) {
    Condition condition =
        new Condition.StartsBetween(LocalTime.parse(from), LocalTime.parse(until));
    assertThat(condition.holds(Worlds.ticket().build(), visit)).isEqualTo(holds);
  }

  @Test
  public void emptyAllAndNoneHoldAndEmptyAnyDoesNot() {
    WorkRecord record = Worlds.ticket().build();
    assertThat(new Condition.All(List.of()).holds(record, Visit.bare(1))).isTrue();
    assertThat(new Condition.None(List.of()).holds(record, Visit.bare(1))).isTrue();
    assertThat(new Condition.Any(List.of()).holds(record, Visit.bare(1))).isFalse();
  }

  @Test
  public void onDoneWorkAStateHoldsForDoneAndForTheStateBefore() {
    WorkRecord done = Worlds.ticket().state(State.TENTATIVE).state(State.DONE).build();
    assertThat(holds(State.DONE, done)).isTrue();
    assertThat(holds(State.TENTATIVE, done)).isTrue();
    assertThat(holds(State.CONFIRMED, done)).isFalse();
  }

  @DataProvider
  Object[][] headCounts() {
    return new Object[][] {
      {2, State.CONFIRMED, State.TENTATIVE},
      {1, State.CONFIRMED, State.CONFIRMED},
      {2, State.DONE, State.TENTATIVE},
    };
  }

  /** LANDING 9: for every rule that asks for the state. */
  @Test(dataProvider = "headCounts")
  public void aVisitUnderItsLeastHeadCountIsTentativeForRules(int least, State state, State as) {
    WorkRecord job =
        Worlds.ticket()
            .kind(Kind.JOB)
            .states(state, State.CONFIRMED)
            .assignments(List.of(Worlds.lead(2, Worlds.NOW)))
            .leastHeadCount(OptionalInt.of(least))
            .build();
    for (State asked : List.of(State.TENTATIVE, State.CONFIRMED)) {
      assertThat(holds(asked, job)).as(asked.name()).isEqualTo(asked == as);
    }
    assertThat(holds(State.DONE, job)).isEqualTo(state == State.DONE);
  }

  private static boolean holds(State state, WorkRecord record) {
    return new Condition.StateIs(Set.of(state)).holds(record, Visit.bare(1));
  }

  @Test
  public void aBlankDetailIsNotPresent() {
    Condition phone = new Condition.DetailPresent(DetailKey.PHONE);
    WorkRecord blank = Worlds.ticket().detail(DetailKey.PHONE, DetailValue.of("  ")).build();
    WorkRecord filled =
        Worlds.ticket().detail(DetailKey.PHONE, DetailValue.of("0555 0142")).build();
    assertThat(phone.holds(blank, Visit.bare(1))).isFalse();
    assertThat(phone.holds(filled, Visit.bare(1))).isTrue();
  }

  @Test
  public void aRoleIsOnThisVisit() {
    WorkRecord record =
        Worlds.ticket()
            .visits(List.of(Visit.bare(1), Visit.bare(2)))
            .assignments(List.of(Worlds.lead(2, Worlds.NOW)))
            .build();
    Condition lead = new Condition.RolePresent(RoleId.LEAD);
    assertThat(lead.holds(record, Visit.bare(1))).isTrue();
    assertThat(lead.holds(record, Visit.bare(2))).isFalse();
  }

  @DataProvider
  Object[][] values() {
    return new Object[][] {
      {"30", State.CONFIRMED, ValueTest.OVER, true},
      {"20", State.CONFIRMED, ValueTest.OVER, false},
      {"20", State.CONFIRMED, ValueTest.IS, true},
      {"7", State.CONFIRMED, ValueTest.UNDER, true},
      {"a dozen", State.CONFIRMED, ValueTest.UNDER, false},
      {"", State.CONFIRMED, ValueTest.UNDER, false},
      // It applies while the work is confirmed only.
      {"30", State.TENTATIVE, ValueTest.OVER, false},
    };
  }

  @Test(dataProvider = "values")
  public void aValueIsComparedWhereItsDetailApplies(
      String value, State state, ValueTest test, boolean holds) {
    DetailKey count = new DetailKey("count");
    DetailDefinition definition =
        new DetailDefinition(
            count,
            "Count",
            Set.of(Kind.TICKET),
            ForSet.CREW,
            true,
            DetailSort.NUMBER,
            List.of(),
            Set.of(State.CONFIRMED),
            "gates");
    WorkRecord record = Worlds.ticket().state(state).detail(count, DetailValue.of(value)).build();
    Condition condition = new Condition.DetailValued(definition, test, "20");
    assertThat(condition.holds(record, Visit.bare(1))).isEqualTo(holds);
    assertThat(condition.failing(record, Visit.bare(1), key -> false))
        .as("for whom may not know of it")
        .containsExactly(Reason.Code.RULE_NOT_MET);
  }
}
