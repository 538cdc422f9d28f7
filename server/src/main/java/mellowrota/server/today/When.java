package mellowrota.server.today;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import mellowrota.core.work.Due;
import mellowrota.core.work.WorkRecord;

/** How pressing open work is by its due time or date. */
enum When {
  OVERDUE,
  DUE_TODAY,
  AHEAD;

  /** Work without a due time is ahead: its spans say when it is. */
  static When of(WorkRecord record, Instant now, LocalDate today, ZoneId zone) {
    Due due = record.due().orElse(null);
    if (due instanceof Due.At at) {
      Instant moment = at.time().toInstant();
      boolean isToday = moment.atZone(zone).toLocalDate().equals(today);
      return moment.isBefore(now) ? OVERDUE : isToday ? DUE_TODAY : AHEAD;
    }
    if (due instanceof Due.On on) {
      return on.day().isBefore(today) ? OVERDUE : on.day().equals(today) ? DUE_TODAY : AHEAD;
    }
    return AHEAD;
  }
}
