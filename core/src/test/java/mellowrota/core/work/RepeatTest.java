package mellowrota.core.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import mellowrota.core.RandomWorlds;
import mellowrota.core.Worlds;
import mellowrota.core.change.RecordField;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class RepeatTest {

  @DataProvider
  Object[][] days() {
    return new Object[][] {
      {new Repeat(1, Repeat.Unit.DAYS, 9), 1, "2027-01-31", "2027-02-01"},
      {new Repeat(2, Repeat.Unit.WEEKS, 9), 3, "2027-01-31", "2027-03-14"},
      {new Repeat(1, Repeat.Unit.MONTHS, 9), 1, "2027-01-31", "2027-02-28"},
      {new Repeat(1, Repeat.Unit.MONTHS, 9), 2, "2027-01-31", "2027-03-31"},
      {new Repeat(1, Repeat.Unit.MONTHS, 9), 13, "2027-01-31", "2028-02-29"},
      {new Repeat(1, Repeat.Unit.YEARS, 9), 1, "2028-02-29", "2029-02-28"},
      {new Repeat(1, Repeat.Unit.YEARS, 9), 4, "2028-02-29", "2032-02-29"},
      {new Repeat(3, Repeat.Unit.DAYS, 9), 0, "2027-01-31", "2027-01-31"},
    };
  }

  @Test(dataProvider = "days")
  public void eachOccurrenceIsCountedFromTheFirst(
      Repeat repeat, int occurrence, String first, String then) {
    WorkRecord record =
        Worlds.ticket().due(Optional.of(new Due.On(LocalDate.parse(first)))).build();
    WorkRecord later = Repeat.later(record, repeat.distance(occurrence));
    assertThat(later.due()).contains(new Due.On(LocalDate.parse(then)));
  }

  @Test
  public void localTimesStayWhatTheyAreOnTheClock() {
    ZonedDateTime start =
        LocalTimes.resolve(LocalDateTime.parse("2027-03-21T01:30"), Worlds.LONDON);
    Visit visit =
        new Visit(1, Optional.of(new When.Timed(start, start.plusHours(7))), MarginSetting.UNSET);
    WorkRecord record = Worlds.ticket().visits(List.of(visit)).build();
    When.Timed later =
        (When.Timed)
            Repeat.later(record, new Repeat(1, Repeat.Unit.WEEKS, 2).distance(1))
                .visits()
                .get(0)
                .when()
                .orElseThrow();
    // On that night 01:30 does not exist; it moves forward by the gap.
    assertThat(later.start().toLocalDateTime()).hasToString("2027-03-28T02:30");
    assertThat(later.end().toLocalDateTime()).hasToString("2027-03-28T08:30");
  }

  @Test
  public void aSpanOfDaysKeepsItsLength() {
    Visit visit =
        new Visit(
            1,
            Optional.of(
                new When.AllDay(
                    DaySpan.through(LocalDate.of(2027, 1, 30), LocalDate.of(2027, 2, 2)))),
            MarginSetting.UNSET);
    WorkRecord record = Worlds.ticket().visits(List.of(visit)).build();
    WorkRecord later = Repeat.later(record, new Repeat(1, Repeat.Unit.MONTHS, 2).distance(1));
    assertThat(later.visits().get(0).when())
        .contains(
            new When.AllDay(DaySpan.through(LocalDate.of(2027, 2, 28), LocalDate.of(2027, 3, 3))));
  }

  @Test
  public void countsBeginAtOne() {
    assertThatThrownBy(() -> new Repeat(0, Repeat.Unit.DAYS, 1))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> new Repeat(1, Repeat.Unit.DAYS, 0))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] seeds = new Object[200][];
    for (int i = 0; i < seeds.length; i++) {
      seeds[i] = new Object[] {(long) i};
    }
    return seeds;
  }

  /** But for what a new record begins with, a copy says the same, field by field. */
  @Test(dataProvider = "seeds")
  public void aRecordLikeAnotherIsTheSameWorkNotYetBegun(long seed) {
    WorkRecord one = new RandomWorlds(seed).record(7);
    WorkRecord copy =
        WorkRecord.like(one, RecordId.of(8), "T-8", PersonId.of(2), Worlds.NOW).build();
    var same = RecordFields.flatten(one);
    var copied = RecordFields.flatten(copy);
    for (String own :
        List.of(
            RecordField.STATE.kept(),
            RecordField.STARTED.kept(),
            RecordField.CANT.kept(),
            RecordField.ASSIGNMENTS.kept())) {
      same.remove(own);
      copied.remove(own);
    }
    assertThat(copied).isEqualTo(same);
    assertThat(copy.started() || copy.cant() || copy.isDone()).isFalse();
    assertThat(copy.assignments()).hasSameSizeAs(one.assignments());
    assertThat(copy.assignments()).allMatch(a -> a.givenAt().equals(Worlds.NOW));
  }
}
