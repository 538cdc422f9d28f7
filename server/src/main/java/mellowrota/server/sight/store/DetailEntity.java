package mellowrota.server.sight.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.List;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What a detail is, in its place among the others. */
@Entity
@Table(name = "detail_definition")
final class DetailEntity {

  @Id String key;
  String label;
  String kinds;

  long forBits;

  boolean typed;
  int position;

  @Enumerated(EnumType.STRING)
  DetailSort sort;

  @JdbcTypeCode(SqlTypes.JSON)
  List<String> choices;

  String states;

  String unit;

  protected DetailEntity() {}

  /** Whether it is typed is settled when it is made. */
  DetailEntity(DetailDefinition one) {
    key = one.key().name();
    typed = one.typed();
  }

  void become(DetailDefinition one, int at) {
    sort = one.sort();
    label = one.label();
    kinds = Names.of(one.kinds());
    forBits = one.forWhom().bits();
    position = at;
    choices = List.copyOf(one.choices());
    states = Names.of(one.states());
    unit = one.unit();
  }

  DetailDefinition definition() {
    return new DetailDefinition(
        new DetailKey(key),
        label,
        Names.in(Kind.class, kinds),
        new ForSet(forBits),
        typed,
        sort,
        choices,
        Names.in(State.class, states),
        unit);
  }
}
