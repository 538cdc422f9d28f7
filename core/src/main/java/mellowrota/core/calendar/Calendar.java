package mellowrota.core.calendar;

import java.util.Objects;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;

/** A list of entries. Its name is unique and says whose it is. */
public record Calendar(CalendarId id, Owner owner, String name) {

  public Calendar {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(owner, "owner");
    Objects.requireNonNull(name, "name");
  }

  /** Whose it is, which is also its sort. */
  public sealed interface Owner {

    /** Everybody has one, held by us from the first day. Member: its person. */
    record Own(PersonId person) implements Owner {}

    /** Members: all in the team, nested teams too. */
    record OfTeam(TeamId team) implements Owner {}

    /** Members: coordinators and team coordinators. */
    record Master() implements Owner {}

    /** All dates of one sort, such as due times. Members: crew. */
    record DateList() implements Owner {}

    /** A site's, a vehicle's, a thing's. Members: crew. */
    record OfPlace(long place) implements Owner {}

    /** Named by the house. Members: coordinators. */
    record Named() implements Owner {}
  }
}
