package mellowrota.server.cover;

import java.time.ZoneId;
import java.util.Optional;
import mellowrota.core.cover.Need;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Visit;
import mellowrota.core.work.WorkRecord;

/**
 * One visit of a record that wants so many people.
 *
 * @param zone of the site
 */
record Wanting(WorkRecord record, Visit visit, ZoneId zone) {

  Ask.OfVisit ask() {
    return new Ask.OfVisit(record.id().value(), visit.no());
  }

  String id() {
    return OnIt.id(record, visit);
  }

  boolean isTentative() {
    return OnIt.isTentative(record, visit);
  }

  /** All-day work asks for the site's local day. */
  TimeSpan span() {
    return visit.when().orElseThrow().in(zone);
  }

  Optional<Need> need(TimeSpan range) {
    return span()
        .intersection(range)
        .map(span -> new Need(ask().key(), false, zone, span, record.wants().places()));
  }
}
