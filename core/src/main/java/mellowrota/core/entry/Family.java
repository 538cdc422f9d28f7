package mellowrota.core.entry;

/** Entries of different families on one calendar are different entries. */
public enum Family {
  /** The span of the work. */
  WORK,
  GIVEN_DUE,
  DUE
}
