package mellowrota.server.rules;

import java.util.List;
import java.util.Map;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Leaving;
import mellowrota.server.sight.World;

/** An act that was only looked at: thrown so that all of it is taken back. */
final class PreviewRun extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final transient PersonId asker;
  private final transient World before;
  private final transient World after;
  private final transient Map<RecordId, WorkRecord> changed;
  private final transient List<Leaving.Ended> ended;
  private final transient Set<RecordId> reached;

  /**
   * @param changed records as they would be
   * @param reached others that the change of the world reaches
   */
  PreviewRun(Act act, World before, World after, Set<RecordId> reached) {
    super("looked at", null, false, false);
    this.asker = act.actor();
    this.before = before;
    this.after = after;
    this.changed = Map.copyOf(act.records());
    this.ended = act.ended();
    this.reached = Set.copyOf(reached);
  }

  List<Leaving.Ended> ended() {
    return ended;
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
