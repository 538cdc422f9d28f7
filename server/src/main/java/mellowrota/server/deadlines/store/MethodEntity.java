package mellowrota.server.deadlines.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.OptionalLong;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Unit;
import mellowrota.server.deadlines.Chains;

/** A way in which a notice goes out. */
@Entity
@Table(name = "notice_method")
final class MethodEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String name;
  int number;

  @Enumerated(EnumType.STRING)
  Unit unit;

  void become(Method method) {
    name = method.name().text();
    number = method.number();
    unit = method.unit();
  }

  Chains.KeptMethod kept() {
    return new Chains.KeptMethod(OptionalLong.of(id), new Method(Name.of(name), number, unit));
  }

  /** Whether that is this one: by its number, where it has one, else by its name. */
  boolean is(Chains.KeptMethod one) {
    return one.number().isPresent()
        ? one.number().getAsLong() == id
        : Name.of(name).equals(one.method().name());
  }
}
