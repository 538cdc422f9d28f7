package mellowrota.server.deadlines.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** A chain: what it is called now, and which of its versions is the latest. */
@Entity
@Table(name = "chain")
final class ChainEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String name;
  int no;
}
