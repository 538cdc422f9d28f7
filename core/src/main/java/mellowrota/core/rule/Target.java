package mellowrota.core.rule;

import java.util.Set;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.RoleId;

/** On which calendars a rule lands. */
public sealed interface Target {

  /** The own calendars of whoever holds one of these roles. */
  record OwnOf(Set<RoleId> roles) implements Target {
    public OwnOf {
      roles = Set.copyOf(roles);
    }
  }

  /** The calendars of the teams that the people in these roles are directly in. */
  record TeamsOf(Set<RoleId> roles) implements Target {
    public TeamsOf {
      roles = Set.copyOf(roles);
    }
  }

  record ThePlaces() implements Target {}

  record Master() implements Target {}

  /** One date list or named calendar. */
  record One(CalendarId calendar) implements Target {}
}
