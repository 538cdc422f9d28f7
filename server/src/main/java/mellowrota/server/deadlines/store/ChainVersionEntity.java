package mellowrota.server.deadlines.store;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Table;
import java.util.ArrayList;
import java.util.List;
import mellowrota.server.deadlines.Chains;
import mellowrota.server.deadlines.Meant;

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

  @ElementCollection
  @CollectionTable(name = "chain_name", joinColumns = @JoinColumn(name = "chain_version"))
  @OrderColumn(name = "position")
  List<NamePart> names = new ArrayList<>();

  protected ChainVersionEntity() {}

  ChainVersionEntity(long chain, int no, Chains.Text text) {
    this.chain = chain;
    this.no = no;
    this.text = text.typed();
    text.names().forEach(one -> names.add(new NamePart(one)));
  }

  Chains.Version version() {
    List<Meant> meant = names.stream().map(NamePart::meant).toList();
    return new Chains.Version(id, chain, no, new Chains.Text(text, meant));
  }
}
