package mellowrota.server.today;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.stream.Stream;
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
    if (due == null) {
      return AHEAD;
    }
    return !now.isBefore(due.overdueFrom(zone))
        ? OVERDUE
        : due.day(zone).equals(today) ? DUE_TODAY : AHEAD;
  }

  /** Whether it begins or is due before a moment. */
  static boolean begins(WorkRecord record, ZoneId zone, Instant before) {
    return Stream.concat(
            record.due().map(due -> due.overdueFrom(zone)).stream(),
            record.visits().stream()
                .flatMap(visit -> visit.when().stream())
                .map(when -> when.in(zone).start()))
        .anyMatch(moment -> moment.isBefore(before));
  }
}
