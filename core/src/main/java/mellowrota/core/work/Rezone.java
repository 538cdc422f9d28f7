package mellowrota.core.work;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import mellowrota.core.time.LocalTimes;

/**
 * The zone of a site becomes another: what is ahead in the old one keeps its local times there,
 * what has begun keeps its moments. Times that were said in a zone of their own stay.
 */
public record Rezone(ZoneId from, ZoneId to, Instant now) {

  /** The record with the times that are ahead in the new zone; the same one where none is. */
  public WorkRecord of(WorkRecord record) {
    if (record.isDone() || record.state() == State.CANCELLED) {
      return record;
    }
    List<Visit> visits =
        record.visits().stream()
            .map(one -> new Visit(one.no(), one.when().map(this::of), one.margins()))
            .toList();
    List<NamedDate> dates =
        record.dates().stream().map(one -> new NamedDate(one.name(), of(one.when()))).toList();
    Optional<Due> due = record.due().map(this::of);
    return record.with().visits(visits).dates(dates).due(due).build();
  }

  private When of(When when) {
    if (!(when instanceof When.Timed timed) || !isAhead(timed.start())) {
      return when;
    }
    ZonedDateTime start = moved(timed.start());
    ZonedDateTime end = moved(timed.end());
    // A clock change there can turn a short span round.
    return new When.Timed(start, end.isBefore(start) ? start : end);
  }

  private Due of(Due due) {
    return due instanceof Due.At at && isAhead(at.time()) ? new Due.At(moved(at.time())) : due;
  }

  private boolean isAhead(ZonedDateTime time) {
    return time.getZone().equals(from) && time.toInstant().isAfter(now);
  }

  private ZonedDateTime moved(ZonedDateTime time) {
    return LocalTimes.resolve(time.toLocalDateTime(), to);
  }
}
