package mellowrota.server.records.store;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.Optional;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;

/** A visit; the instants are derived, with the version of the zone data. */
@Embeddable
class VisitPart {

  /** Its key too: of a part that says nothing else no row would be kept. */
  @Column(name = "no", insertable = false, updatable = false)
  int no;

  LocalDateTime localFrom;

  LocalDateTime localTo;

  String zone;

  String offsetFrom;

  String offsetTo;

  LocalDate dateFrom;

  LocalDate dateTo;

  Instant starts;
  Instant ends;
  String tzdb;

  String marginBefore;

  String marginAfter;

  protected VisitPart() {}

  VisitPart(Visit visit) {
    no = visit.no();
    if (visit.when().orElse(null) instanceof When.Timed timed) {
      localFrom = timed.start().toLocalDateTime();
      localTo = timed.end().toLocalDateTime();
      zone = timed.start().getZone().getId();
      offsetFrom = timed.start().getOffset().getId();
      offsetTo = timed.end().getOffset().getId();
      starts = timed.start().toInstant();
      ends = timed.end().toInstant();
      tzdb = RecordEntity.TZDB;
    } else if (visit.when().orElse(null) instanceof When.AllDay allDay) {
      dateFrom = allDay.days().first();
      dateTo = allDay.days().until();
    }
    marginBefore = visit.margins().before().map(Duration::toString).orElse(null);
    marginAfter = visit.margins().after().map(Duration::toString).orElse(null);
  }

  Visit visit() {
    return new Visit(no, Optional.ofNullable(when()), margins());
  }

  private When when() {
    if (dateFrom != null) {
      return new When.AllDay(DaySpan.of(dateFrom, dateTo));
    }
    return localFrom == null
        ? null
        : new When.Timed(time(localFrom, zone, offsetFrom), time(localTo, zone, offsetTo));
  }

  private MarginSetting margins() {
    return new MarginSetting(
        Optional.ofNullable(marginBefore).map(Duration::parse),
        Optional.ofNullable(marginAfter).map(Duration::parse));
  }

  static ZonedDateTime time(LocalDateTime local, String zone, String offset) {
    return ZonedDateTime.ofLocal(local, ZoneId.of(zone), ZoneOffset.of(offset));
  }
}
