package mellowrota.core.calendar;

/** Identifies a calendar. */
public record CalendarId(long value) implements Comparable<CalendarId> {

  public static CalendarId of(long value) {
    return new CalendarId(value);
  }

  @Override
  public int compareTo(CalendarId other) {
    return Long.compare(value, other.value);
  }
}
