package mellowrota.core.sync;

/** What becomes of a change that was made in somebody's own calendar. */
public enum Answer {
  /** It comes into the record. */
  TAKE,
  /** It stays there as it is until somebody says take it, or put it back. */
  PROPOSE,
  /** Ours is written again, and that is told. */
  PUT_BACK;

  /** Says what may be changed there, by the role of whoever's calendar it is. */
  @FunctionalInterface
  public interface Rights {
    Answer to(Part part);
  }
}
