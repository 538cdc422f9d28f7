package mellowrota.core.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import mellowrota.core.Worlds;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Due;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Margins;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ShapesTest {

  private static final Shapes SHAPES =
      new Shapes(Places.of(List.of(), Worlds.LONDON, Worlds.WEEKDAYS), MarginSettings.NONE);

  private static Visit visit(String from, String until) {
    return new Visit(
        1,
        Optional.of(
            new When.Timed(
                LocalTimes.resolve(LocalDateTime.parse(from), Worlds.LONDON),
                LocalTimes.resolve(LocalDateTime.parse(until), Worlds.LONDON))),
        MarginSetting.UNSET);
  }

  @DataProvider
  Object[][] wholeDays() {
    return new Object[][] {
      {visit("2026-11-25T08:30", "2026-11-25T15:00"), "2026-11-25", "2026-11-26"},
      {visit("2026-11-25T22:00", "2026-11-26T00:00"), "2026-11-25", "2026-11-26"},
      {visit("2026-11-25T22:00", "2026-11-26T00:01"), "2026-11-25", "2026-11-27"},
      {visit("2026-11-25T00:00", "2026-11-25T00:00"), "2026-11-25", "2026-11-26"},
      {visit("2026-10-24T20:00", "2026-10-25T04:00"), "2026-10-24", "2026-10-26"},
    };
  }

  @Test(dataProvider = "wholeDays")
  public void theWholeDayIsEveryDayTouched(Visit visit, String first, String until) {
    Shapes.Laid laid =
        SHAPES
            .lay(
                Shape.WHOLE_DAY, Worlds.ticket().build(), visit, Optional.empty(), Optional.empty())
            .orElseThrow();
    assertThat(laid.times())
        .isEqualTo(
            new EntryTimes.AllDay(DaySpan.of(LocalDate.parse(first), LocalDate.parse(until))));
  }

  @Test
  public void withoutASpanTheWholeDayIsTheDueDay() {
    WorkRecord record = Worlds.ticket().due(Worlds.dueAt("2026-11-27T13:00")).build();
    Shapes.Laid laid =
        SHAPES
            .lay(Shape.WHOLE_DAY, record, Visit.bare(1), Optional.empty(), Optional.empty())
            .orElseThrow();
    assertThat(laid.times())
        .isEqualTo(new EntryTimes.AllDay(DaySpan.ofDay(LocalDate.of(2026, 11, 27))));
  }

  @Test
  public void spanShapesWithoutASpanLandNothing() {
    WorkRecord record = Worlds.ticket().due(Worlds.dueAt("2026-11-27T13:00")).build();
    for (Shape shape : List.of(Shape.SPAN, Shape.SPAN_WITH_MARGINS)) {
      assertThat(SHAPES.lay(shape, record, Visit.bare(1), Optional.empty(), Optional.empty()))
          .isEmpty();
    }
  }

  @Test
  public void marginsWidenTheSpanAndTheBareSpanIsKept() {
    Visit bare = visit("2026-11-25T08:30", "2026-11-25T15:00");
    Visit with =
        new Visit(
            1,
            bare.when(),
            MarginSetting.of(new Margins(Duration.ofMinutes(30), Duration.ofMinutes(45))));
    Shapes.Laid laid =
        SHAPES
            .lay(
                Shape.SPAN_WITH_MARGINS,
                Worlds.ticket().build(),
                with,
                Optional.empty(),
                Optional.empty())
            .orElseThrow();
    EntryTimes.Timed times = (EntryTimes.Timed) laid.times();
    assertThat(times.start().toLocalTime()).hasToString("08:00");
    assertThat(times.end().toLocalTime()).hasToString("15:45");
    assertThat(laid.bare()).isPresent();
  }

  @Test
  public void asItComesTakesTheSpanThenTheRailThenTheMark() {
    WorkRecord due = Worlds.ticket().due(Worlds.dueAt("2026-11-27T13:00")).build();
    Visit spanned = visit("2026-11-25T08:30", "2026-11-25T15:00");
    assertThat(family(due, spanned, Optional.of(Worlds.NOW))).isEqualTo(Family.WORK);
    assertThat(family(due, Visit.bare(1), Optional.of(Worlds.NOW))).isEqualTo(Family.GIVEN_DUE);
    assertThat(family(due, Visit.bare(1), Optional.empty())).isEqualTo(Family.DUE);
  }

  private static Family family(WorkRecord record, Visit visit, Optional<java.time.Instant> given) {
    return SHAPES
        .lay(Shape.AS_IT_COMES, record, visit, given, Optional.empty())
        .orElseThrow()
        .family();
  }

  @Test
  public void overAClockChangeTheDueMarkIsAQuarterOfRealTime() {
    WorkRecord record = Worlds.ticket().due(Worlds.dueAt("2026-03-29T02:05")).build();
    Shapes.Laid laid =
        SHAPES
            .lay(Shape.DUE_MARK, record, Visit.bare(1), Optional.empty(), Optional.empty())
            .orElseThrow();
    assertThat(Duration.between(laid.times().from(), laid.times().until()))
        .isEqualTo(Duration.ofMinutes(15));
    assertThat(((Due.At) record.due().orElseThrow()).time().getHour()).isEqualTo(2);
  }
}
