package mellowrota.core.calendar;

import java.util.Objects;
import java.util.Set;
import mellowrota.core.people.PersonId;

/** One way of reading a calendar. All who read it that way get the same faces. */
public record Rendering(RenderingId id, CalendarId calendar, Way way) {

  public Rendering {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(calendar, "calendar");
    Objects.requireNonNull(way, "way");
  }

  /** How one comes to read it. */
  public sealed interface Way {
    /** As its owner or member. */
    record Members() implements Way {}

    /** Through a share that this person has accepted and that has not ended. */
    record Share(PersonId reader, Level level) implements Way {}

    /** Through a secret address, which anybody may pass on. */
    record Feed(Level level) implements Way {}

    /** Through the secret address of one's own calendar. */
    record OwnFeed(PersonId person, Level level) implements Way {}

    /**
     * As a copy in an outside calendar, read there by whoever reads the calendar here, by these
     * people, and, unless it was said that nobody else does, by anybody (SIGHT 1).
     */
    record Copy(Set<PersonId> alsoRead, boolean others) implements Way {
      public Copy {
        alsoRead = Set.copyOf(alsoRead);
      }
    }
  }
}
