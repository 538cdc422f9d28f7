package mellowrota.server.deadlines.store;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embedded;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.MapKeyColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.SequenceGenerator;
import jakarta.persistence.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mellowrota.core.deadline.Name;
import mellowrota.server.deadlines.KeptSet;
import mellowrota.server.records.store.DueParts;

/** What an act made of a set of deadlines. Numbers are taken in blocks. */
@Entity
@Table(name = "deadline_set_version")
final class DeadlineSetVersionEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.SEQUENCE, generator = "deadline_set_version")
  @SequenceGenerator(
      name = "deadline_set_version",
      sequenceName = "deadline_set_version_id_seq",
      allocationSize = 50)
  Long id;

  @Column(name = "deadline_set")
  long set;

  int no;
  long act;
  long chainVersion;
  @Embedded DueParts keyDate;
  Long method;
  boolean isOff;

  @ElementCollection
  @CollectionTable(name = "deadline_answer", joinColumns = @JoinColumn(name = "version"))
  @MapKeyColumn(name = "question")
  @Column(name = "yes")
  Map<String, Boolean> answers = new HashMap<>();

  @ElementCollection
  @CollectionTable(name = "deadline_step", joinColumns = @JoinColumn(name = "version"))
  @OrderColumn(name = "position")
  List<StepPart> steps = new ArrayList<>();

  protected DeadlineSetVersionEntity() {}

  DeadlineSetVersionEntity(long set, int no, KeptSet.State state) {
    this.set = set;
    this.no = no;
    act = state.act();
    chainVersion = state.chainVersion();
    keyDate = state.keyDate().map(DueParts::new).orElse(null);
    method = state.method().isPresent() ? state.method().getAsLong() : null;
    isOff = state.isOff();
    state.answers().forEach((question, yes) -> answers.put(question.text(), yes));
    state.lines().forEach(line -> steps.add(new StepPart(line)));
  }

  KeptSet.State state() {
    Map<Name, Boolean> said = new HashMap<>();
    answers.forEach((question, yes) -> said.put(Name.of(question), yes));
    return new KeptSet.State(
        act,
        chainVersion,
        Optional.ofNullable(keyDate).map(DueParts::due),
        method == null ? OptionalLong.empty() : OptionalLong.of(method),
        said,
        steps.stream().map(StepPart::line).toList(),
        isOff);
  }
}
