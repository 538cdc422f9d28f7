package mellowrota.server.crew;

import java.util.List;

/**
 * Whoever keeps numbers of people, teams or places that no key of the database guards, as work and
 * rules do.
 */
public interface Naming {

  /**
   * Those that an act added.
   *
   * @param act since which they are there
   */
  record Added(long act, List<Long> people, List<Long> teams, List<Long> places) {}

  /** Whether one of them may be named by now. */
  boolean mayName(Added added);
}
