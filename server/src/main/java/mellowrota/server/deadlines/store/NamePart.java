package mellowrota.server.deadlines.store;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import mellowrota.core.deadline.Name;
import mellowrota.server.deadlines.Meant;

/** What a name meant when its text was saved. */
@Embeddable
class NamePart {

  @Enumerated(EnumType.STRING)
  Meant.Sort sort;

  String name;
  long number;

  protected NamePart() {}

  NamePart(Meant meant) {
    sort = meant.sort();
    name = meant.name().text();
    number = meant.number();
  }

  Meant meant() {
    return new Meant(sort, Name.of(name), number);
  }
}
