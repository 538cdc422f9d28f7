package mellowrota.server.records.store;

import jakarta.persistence.Embeddable;
import jakarta.persistence.Embedded;
import mellowrota.core.work.NamedDate;

/** A further date of a record beside its due time. */
@Embeddable
class DatePart {

  String name;
  @Embedded DueParts due;

  protected DatePart() {}

  DatePart(NamedDate date) {
    name = date.name();
    due = new DueParts(date.when());
  }

  NamedDate date() {
    return new NamedDate(name, due.due());
  }
}
