package mellowrota.server.records;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.people.Person;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;

/** Tells before they are kept which of many records would be refused. */
public interface PlannedCheck {

  /**
   * One of them, as it is and as it would be.
   *
   * @param before empty: it is new
   */
  record Planned(Optional<WorkRecord> before, WorkRecord after) {}

  /**
   * Why some would be refused, by their place in the list; of those that are in each other's way
   * the later ones are, and what is refused is in nobody's way.
   */
  Map<Integer, String> refused(World world, Person asker, List<Planned> planned);
}
