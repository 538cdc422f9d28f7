package mellowrota.server.deadlines.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** The text of a chain as it was typed. */
@Entity
@Table(name = "chain_version")
final class ChainVersionEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long chain;
  int no;
  String text;

  protected ChainVersionEntity() {}

  ChainVersionEntity(long chain, int no, String text) {
    this.chain = chain;
    this.no = no;
    this.text = text;
  }
}
