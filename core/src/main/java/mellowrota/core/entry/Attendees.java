package mellowrota.core.entry;

/** Who of the people on the work stands in an entry as invited (RFC 5545 §3.8.4.1). */
public enum Attendees {
  NOBODY,
  /** Everybody named on the visit, seen by whoever reads the entry and may see the people on it. */
  EVERYBODY,
  /** On somebody's own calendar that person alone, elsewhere nobody. */
  ONLY_ONESELF
}
