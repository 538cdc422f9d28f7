package mellowrota.core.deadline;

/** What is counted between two dates. */
public enum Unit {
  MINUTES("minute"),
  HOURS("hour"),
  DAYS("day"),
  WORKING_DAYS("working day"),
  WEEKS("week"),
  MONTHS("month");

  private final String one;

  Unit(String one) {
    this.one = one;
  }

  /** Whether it is counted on the clock, from a time and not from a day. */
  public boolean isElapsed() {
    return this == MINUTES || this == HOURS;
  }

  /** As after a number. */
  public String after(int number) {
    return number == 1 ? one : many();
  }

  String many() {
    return one + "s";
  }
}
