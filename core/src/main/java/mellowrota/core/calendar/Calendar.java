package mellowrota.core.calendar;

import java.util.Objects;
import java.util.OptionalLong;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;

/** A list of entries. Its name is unique and says whose it is. */
public record Calendar(CalendarId id, Owner owner, String name) {

  public Calendar {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(owner, "owner");
    Objects.requireNonNull(name, "name");
  }

  /** The sorts of calendar, nearest to the work first. */
  public enum Sort {
    OWN,
    TEAM,
    PLACE,
    NAMED,
    DATE_LIST,
    MASTER
  }

  /** Whose it is, which is also its sort. */
  public sealed interface Owner {

    Sort sort();

    /**
     * The number of the person, team or place whose it is; empty where it is nobody's in
     * particular.
     */
    default OptionalLong number() {
      return OptionalLong.empty();
    }

    /** Everybody has one, held by us from the first day. Member: its person. */
    record Own(PersonId person) implements Owner {
      @Override
      public Sort sort() {
        return Sort.OWN;
      }

      @Override
      public OptionalLong number() {
        return OptionalLong.of(person.value());
      }
    }

    /** Members: all in the team, nested teams too. */
    record OfTeam(TeamId team) implements Owner {
      @Override
      public Sort sort() {
        return Sort.TEAM;
      }

      @Override
      public OptionalLong number() {
        return OptionalLong.of(team.value());
      }
    }

    /** Members: coordinators and team coordinators. */
    record Master() implements Owner {
      @Override
      public Sort sort() {
        return Sort.MASTER;
      }
    }

    /** All dates of one sort, such as due times. Members: crew. */
    record DateList() implements Owner {
      @Override
      public Sort sort() {
        return Sort.DATE_LIST;
      }
    }

    /** A site's, a vehicle's, a thing's. Members: crew. */
    record OfPlace(long place) implements Owner {
      @Override
      public Sort sort() {
        return Sort.PLACE;
      }

      @Override
      public OptionalLong number() {
        return OptionalLong.of(place);
      }
    }

    /** Named by the house. Members: coordinators. */
    record Named() implements Owner {
      @Override
      public Sort sort() {
        return Sort.NAMED;
      }
    }
  }
}
