package mellowrota.server.acts;

import java.time.LocalDate;
import java.util.Optional;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.people.PersonId;

/**
 * Whoever leaves takes with them what they made (SIGHT 11). Each feature that keeps such things
 * ends them in the act by which somebody left, whichever way they left; no undo opens them again.
 */
public interface Leaving {

  /** What may end with somebody. */
  enum Sort {
    FEED,
    SHARE,
    LINK,
    APP_PASSWORD
  }

  /**
   * What ended.
   *
   * @param calendar of ours which it showed
   * @param reader whom it showed it to, if it was for one
   * @param level of a feed or a share
   * @param until the first day on which it would have been over
   */
  record Ended(
      Sort sort,
      String label,
      Optional<CalendarId> calendar,
      Optional<PersonId> reader,
      Optional<Level> level,
      Optional<LocalDate> until) {

    /** Of which no more is anybody else's to know. */
    public static Ended of(Sort sort) {
      return new Ended(
          sort, "", Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    }
  }

  /** Ends what those who have left made, and tells the act of each. */
  void end(Act act);
}
