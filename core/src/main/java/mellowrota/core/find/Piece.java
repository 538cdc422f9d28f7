package mellowrota.core.find;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.ValueTest;

/**
 * One thing that a record must be like. It must be like all of them; of pieces that ask for a kind,
 * a state, a person, a team, a place, a region or a chain like one of that sort.
 */
public sealed interface Piece {

  /**
   * Stands somewhere in what the asker sees of it.
   *
   * @param asTyped in no other form of the word
   */
  record Words(String text, boolean asTyped) implements Piece {
    public Words {
      Objects.requireNonNull(text, "text");
    }
  }

  /**
   * Stands somewhere in it, as it was typed; or it is like what a near name asks for.
   *
   * @param meant the name
   */
  record Near(String text, Names.Named meant) implements Piece {}

  /** It is called so. */
  record Ref(String ref) implements Piece {}

  record KindIs(Kind kind) implements Piece {}

  record StateIs(State state) implements Piece {}

  /** Not done, and its due time is over. */
  record Overdue() implements Piece {}

  /**
   * Somebody is on it.
   *
   * @param role empty: in any
   */
  record On(PersonId person, Optional<RoleId> role) implements Piece {
    public On {
      Objects.requireNonNull(person, "person");
      Objects.requireNonNull(role, "role");
    }
  }

  /**
   * Nobody is on it.
   *
   * @param role empty: in none that does the work
   */
  record Nobody(Optional<RoleId> role) implements Piece {
    public Nobody {
      Objects.requireNonNull(role, "role");
    }
  }

  record OfTeam(TeamId team) implements Piece {}

  /** It is done there, or takes it. */
  record AtPlace(PlaceId place) implements Piece {}

  /** It is done, or takes a place, in a region of that number. */
  record InRegion(long region) implements Piece {}

  /** It is a deadline of a chain of that number, or what such deadlines follow. */
  record OfChain(long chain) implements Piece {}

  record Tagged(String tag) implements Piece {}

  /**
   * It has a value in one of these details, or none in the one.
   *
   * @param test how the value must stand to another; empty: any
   * @param than of the detail's sort, in its canonical form; blank where any will do
   * @param isSo false: it has no such value
   */
  record Valued(List<DetailDefinition> details, Optional<ValueTest> test, String than, boolean isSo)
      implements Piece {
    public Valued {
      details = List.copyOf(details);
      Objects.requireNonNull(test, "test");
      Objects.requireNonNull(than, "than");
    }
  }

  /** Stands in whom to talk to, or their number. */
  record Contact(String text) implements Piece {}

  /**
   * When it is, in the house's zone.
   *
   * @param from empty: however early
   * @param until without it; empty: however late
   */
  record When(Edge edge, Optional<LocalDateTime> from, Optional<LocalDateTime> until)
      implements Piece {
    public When {
      Objects.requireNonNull(edge, "edge");
      if (from.isEmpty() && until.isEmpty()) {
        throw new IllegalArgumentException("a piece of time without an end");
      }
    }
  }

  /** What of a record lies in a piece of time. */
  enum Edge {
    /** A visit, in part, or the due time. */
    ANY,
    DUE,
    /** The beginning of a visit. */
    BEGINS,
    /** The end of a visit. */
    ENDS
  }
}
