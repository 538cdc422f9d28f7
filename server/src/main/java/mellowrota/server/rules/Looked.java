package mellowrota.server.rules;

import java.util.Map;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;

/** An act that was only looked at: thrown so that all of it is taken back. */
final class Looked extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final transient PersonId asker;
  private final transient World before;
  private final transient World after;
  private final transient Map<RecordId, WorkRecord> changed;
  private final transient Set<RecordId> reached;

  /**
   * @param changed records as they would be
   * @param reached others that the change of the world reaches
   */
  Looked(
      PersonId asker,
      World before,
      World after,
      Map<RecordId, WorkRecord> changed,
      Set<RecordId> reached) {
    super("looked at", null, false, false);
    this.asker = asker;
    this.before = before;
    this.after = after;
    this.changed = Map.copyOf(changed);
    this.reached = Set.copyOf(reached);
  }

  PersonId asker() {
    return asker;
  }

  World before() {
    return before;
  }

  World after() {
    return after;
  }

  Map<RecordId, WorkRecord> changed() {
    return changed;
  }

  Set<RecordId> reached() {
    return reached;
  }
}
