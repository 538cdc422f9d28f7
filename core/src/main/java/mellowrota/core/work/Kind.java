package mellowrota.core.work;

/** The four kinds of record. */
public enum Kind {
  /** One or more visits. */
  JOB,
  /** Something reported, with a due time. */
  TICKET,
  /** A person standing a duty for a span. */
  SHIFT,
  /** A date by which something must be done. */
  DEADLINE
}
