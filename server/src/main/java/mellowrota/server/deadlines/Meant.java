package mellowrota.server.deadlines;

import mellowrota.core.deadline.Name;

/**
 * What a name in the text of a chain meant when that was saved, so that a rename breaks nothing.
 */
public record Meant(Sort sort, Name name, long number) {

  /** What a chain names of a house. */
  public enum Sort {
    METHOD,
    ROLE,
    PERSON,
    TEAM;

    /** Whether it may hold a role. */
    boolean isHolder() {
      return this == PERSON || this == TEAM;
    }

    /** People and teams share one space of names. */
    Sort space() {
      return isHolder() ? PERSON : this;
    }
  }
}
