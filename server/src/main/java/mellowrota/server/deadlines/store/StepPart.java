package mellowrota.server.deadlines.store;

import jakarta.persistence.Embeddable;
import jakarta.persistence.Embedded;
import java.util.Optional;
import mellowrota.core.deadline.Name;
import mellowrota.core.work.RecordId;
import mellowrota.server.deadlines.KeptSet;
import mellowrota.server.records.store.DueParts;

/** A step of a set as an act left it. */
@Embeddable
class StepPart {

  String name;
  Long record;
  @Embedded DueParts given;
  boolean leftOut;
  boolean byHand;

  protected StepPart() {}

  StepPart(KeptSet.Line line) {
    name = line.step().text();
    record = line.record().map(RecordId::value).orElse(null);
    given = line.given().map(DueParts::new).orElse(null);
    leftOut = line.leftOut();
    byHand = line.byHand();
  }

  KeptSet.Line line() {
    return new KeptSet.Line(
        Name.of(name),
        Optional.ofNullable(record).map(RecordId::of),
        Optional.ofNullable(given).map(DueParts::due),
        leftOut,
        byHand);
  }
}
