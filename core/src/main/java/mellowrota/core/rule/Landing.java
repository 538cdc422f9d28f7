package mellowrota.core.rule;

import java.util.List;
import java.util.Objects;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Entry;

/** What the rules say of one record and one calendar. */
public sealed interface Landing {

  CalendarId calendar();

  /** It lands, by these rules or by an <i>also here</i>. */
  record Lands(Entry entry, List<Reason> reasons) implements Landing {
    public Lands {
      Objects.requireNonNull(entry, "entry");
      reasons = List.copyOf(reasons);
    }

    @Override
    public CalendarId calendar() {
      return entry.key().calendar();
    }
  }

  /** It does not land there, for this reason: the first that holds. */
  record Nowhere(CalendarId calendar, int visit, Reason why) implements Landing {
    public Nowhere {
      Objects.requireNonNull(calendar, "calendar");
      Objects.requireNonNull(why, "why");
    }
  }
}
