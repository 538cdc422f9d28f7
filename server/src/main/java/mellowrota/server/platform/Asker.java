package mellowrota.server.platform;

import mellowrota.core.people.PersonId;

/** The signed-in person who asks. What they may do is read anew in every request. */
public record Asker(PersonId person) {

  /** The request's attribute that names another person, as whom its answer is made. */
  public static final String AS = "mellow.asker.as";
}
