package mellowrota.core.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import mellowrota.core.Worlds;
import mellowrota.core.time.LocalTimes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class RezoneTest {

  private static final ZoneId LONDON = Worlds.LONDON;
  private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");
  private static final Instant NOW = Instant.parse("2027-03-27T12:00:00Z");

  private static When.Timed span(String from, String until, ZoneId zone) {
    return new When.Timed(
        LocalTimes.resolve(LocalDateTime.parse(from), zone),
        LocalTimes.resolve(LocalDateTime.parse(until), zone));
  }

  @DataProvider
  Object[][] spans() {
    return new Object[][] {
      // Ahead: the clock stays, the moment moves.
      {"2027-03-29T09:00", "2027-03-29T17:00", LONDON, "2027-03-29T07:00:00Z"},
      // Begun, over, and said in a zone of its own: all stays.
      {"2027-03-27T11:00", "2027-03-27T18:00", LONDON, "2027-03-27T11:00:00Z"},
      {"2027-03-20T09:00", "2027-03-20T17:00", LONDON, "2027-03-20T09:00:00Z"},
      {"2027-03-29T09:00", "2027-03-29T17:00", ZoneId.of("Asia/Tokyo"), "2027-03-29T00:00:00Z"},
      // 02:30 does not exist in Berlin that night; it moves forward by the gap.
      {"2027-03-28T02:30", "2027-03-28T02:45", LONDON, "2027-03-28T01:30:00Z"},
    };
  }

  @Test(dataProvider = "spans")
  public void whatIsAheadKeepsItsLocalTimes(
      String from, String until, ZoneId zone, String startsThen) {
    Visit visit = new Visit(1, Optional.of(span(from, until, zone)), MarginSetting.UNSET);
    WorkRecord before = Worlds.ticket().visits(List.of(visit)).build();
    WorkRecord after = new Rezone(LONDON, BERLIN, NOW).of(before);
    When.Timed then = (When.Timed) after.visits().get(0).when().orElseThrow();
    assertThat(then.start().toInstant()).isEqualTo(Instant.parse(startsThen));
    assertThat(then.end()).isAfterOrEqualTo(then.start());
    WorkRecord done = before.with().state(State.CANCELLED).build();
    assertThat(new Rezone(LONDON, BERLIN, NOW).of(done)).isEqualTo(done);
  }

  @Test
  public void dueTimesAndDatesGoWithIt() {
    Due due = new Due.At(LocalTimes.resolve(LocalDateTime.parse("2027-04-02T15:00"), LONDON));
    WorkRecord before =
        Worlds.ticket()
            .due(Optional.of(due))
            .dates(List.of(new NamedDate("parts arrive", due)))
            .build();
    WorkRecord after = new Rezone(LONDON, BERLIN, NOW).of(before);
    Due then = new Due.At(LocalTimes.resolve(LocalDateTime.parse("2027-04-02T15:00"), BERLIN));
    assertThat(after.due()).contains(then);
    assertThat(after.dates().get(0).when()).isEqualTo(then);
    assertThat(new Rezone(BERLIN, LONDON, NOW).of(after)).isEqualTo(before);
  }
}
