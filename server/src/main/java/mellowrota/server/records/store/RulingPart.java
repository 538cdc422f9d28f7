package mellowrota.server.records.store;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.util.OptionalInt;
import mellowrota.core.work.Ruling;

/** An exception to where a record lands. */
@Embeddable
class RulingPart {

  @Enumerated(EnumType.STRING)
  Ruling.Sort sort;

  long calendar;
  Integer visit;
  String reason;

  protected RulingPart() {}

  RulingPart(Ruling one) {
    sort = one.sort();
    calendar = one.calendar();
    visit = one.visit().isPresent() ? one.visit().getAsInt() : null;
    reason = one.reason();
  }

  Ruling ruling() {
    return new Ruling(
        sort, calendar, visit == null ? OptionalInt.empty() : OptionalInt.of(visit), reason);
  }
}
