package mellowrota.core.deadline;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Due;

/** When somebody is reminded of a step (CHAINS 2, <i>Reminders</i>). */
public final class Reminders {

  private Reminders() {}

  /**
   * In the order of time, each moment once; those whose working day cannot be found are left out.
   *
   * @param due of the step
   * @param days of the set's place
   * @param hour at which the house reminds of a whole day
   */
  public static List<Instant> of(
      List<Step.Remind> reminders, Due due, WorkingDays days, ZoneId zone, LocalTime hour) {
    List<Instant> found = new ArrayList<>();
    reminders.forEach(one -> at(one, due, days, zone, hour).ifPresent(found::add));
    return found.stream().distinct().sorted().toList();
  }

  /**
   * Those that are yet to go: of those before now the latest goes at once, the earlier ones with
   * it; none where it is overdue.
   */
  public static List<Instant> toGo(List<Instant> reminders, Due due, ZoneId zone, Instant now) {
    if (!due.overdueFrom(zone).isAfter(now)) {
      return List.of();
    }
    List<Instant> found = new ArrayList<>();
    Optional<Instant> missed =
        reminders.stream().filter(one -> one.isBefore(now)).max(Instant::compareTo);
    missed.ifPresent(one -> found.add(now));
    reminders.stream().filter(one -> !one.isBefore(now)).forEach(found::add);
    return found.stream().distinct().toList();
  }

  private static Optional<Instant> at(
      Step.Remind one, Due due, WorkingDays days, ZoneId zone, LocalTime hour) {
    if (one.unit().isElapsed()) {
      // A reminder by the clock stands at a time alone; of a whole day the reader takes none.
      return due instanceof Due.At at
          ? Optional.of(
              one.unit() == Unit.HOURS
                  ? at.time().minusHours(one.number()).toInstant()
                  : at.time().minusMinutes(one.number()).toInstant())
          : Optional.empty();
    }
    LocalTime own =
        due instanceof Due.At at ? at.time().withZoneSameInstant(zone).toLocalTime() : hour;
    return days.count(due.day(zone), -one.number())
        .flatMap(counted -> days.roll(counted.day(), true))
        .map(day -> LocalTimes.moment(day.atTime(one.at().orElse(own)), zone));
  }
}
