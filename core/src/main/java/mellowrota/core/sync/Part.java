package mellowrota.core.sync;

/** What somebody may change of a copy, each compared by itself. */
public enum Part {
  /** Start, end and zone: one detail. */
  TIMES,
  TITLE,
  PLACE,
  /** The text inside what we wrote. */
  TEXT,
  /** Lines added after what we wrote. */
  NOTE
}
