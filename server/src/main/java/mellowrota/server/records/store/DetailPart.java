package mellowrota.server.records.store;

import jakarta.persistence.Embeddable;
import java.util.Optional;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.DetailValue;

/** What a detail of a record says, and whom it is for if that is not as usual. */
@Embeddable
class DetailPart {

  String value;

  Long forBits;

  protected DetailPart() {}

  DetailPart(DetailValue one) {
    value = one.text();
    forBits = one.forWhom().map(ForSet::bits).orElse(null);
  }

  DetailValue detail() {
    return new DetailValue(value, Optional.ofNullable(forBits).map(ForSet::new));
  }
}
