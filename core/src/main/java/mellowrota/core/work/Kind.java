package mellowrota.core.work;

/** The four kinds of record. */
public enum Kind {
  /** One or more visits. */
  JOB("Job"),
  /** Something reported, with a due time. */
  TICKET("Ticket"),
  /** A person standing a duty for a span. */
  SHIFT("Shift"),
  /** A date by which something must be done. */
  DEADLINE("Deadline");

  private final String word;

  Kind(String word) {
    this.word = word;
  }

  /** As it is called among people. */
  public String word() {
    return word;
  }
}
