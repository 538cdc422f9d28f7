package mellowrota.core.sight;

import java.time.Duration;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Objects;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.entry.Reminder;
import mellowrota.core.time.WorkingDays;

/**
 * When a program rings for an entry (VALARM, RFC 5545 §3.6.6).
 *
 * @param before how long before that end of the entry as this face shows it; negative: after it
 * @param fromEnd counted from its end, else from its start
 */
public record Alarm(Duration before, boolean fromEnd) {

  public Alarm {
    Objects.requireNonNull(before, "before");
  }

  /**
   * The reminders of an entry as alarms of one face of it, the earliest first; none for work that
   * is done.
   *
   * @param times as the face shows them
   * @param days that count where reminders count working days
   */
  static List<Alarm> of(Entry entry, EntryTimes times, WorkingDays days) {
    if (entry.with().reminders().isEmpty() || entry.marks().tick()) {
      return List.of();
    }
    boolean toDue = entry.key().family() != Family.WORK;
    EntryTimes own = entry.bareTimes().orElse(entry.times());
    return entry.with().reminders().stream()
        .map(reminder -> new Alarm(before(reminder, own, times, toDue, days), toDue))
        .sorted((one, other) -> other.before().compareTo(one.before()))
        .distinct()
        .toList();
  }

  private static Duration before(
      Reminder reminder, EntryTimes own, EntryTimes shown, boolean toDue, WorkingDays days) {
    if (own instanceof EntryTimes.Timed timed) {
      ZonedDateTime anchor = toDue ? timed.end() : timed.start();
      EntryTimes.Timed face = (EntryTimes.Timed) shown;
      ZonedDateTime edge = toDue ? face.end() : face.start();
      return Duration.between(rings(reminder, anchor, days), edge);
    }
    EntryTimes.AllDay allDay = (EntryTimes.AllDay) own;
    LocalDate anchor = toDue ? allDay.days().until().minusDays(1) : allDay.days().first();
    Duration before =
        switch (reminder.unit()) {
          case MINUTES -> Duration.ofMinutes(reminder.amount());
          case HOURS -> Duration.ofHours(reminder.amount());
          case WORKING_DAYS ->
              Duration.ofDays(anchor.toEpochDay() - before(anchor, reminder, days).toEpochDay());
        };
    return toDue ? before.plusDays(1) : before;
  }

  private static ZonedDateTime rings(Reminder reminder, ZonedDateTime anchor, WorkingDays days) {
    return switch (reminder.unit()) {
      case MINUTES -> anchor.minusMinutes(reminder.amount());
      case HOURS -> anchor.minusHours(reminder.amount());
      case WORKING_DAYS -> anchor.with(before(anchor.toLocalDate(), reminder, days));
    };
  }

  /** Where no day is worked for a year, the day itself. */
  private static LocalDate before(LocalDate day, Reminder reminder, WorkingDays days) {
    return days.count(day, -reminder.amount()).map(WorkingDays.Counted::day).orElse(day);
  }
}
