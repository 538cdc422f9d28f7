package mellowrota.core.work;

/**
 * Where a record stands. Tentative, confirmed and cancelled as in RFC 5545 §3.8.1.11;
 * <i>started</i> is a mark and no state.
 */
public enum State {
  DRAFT,
  TENTATIVE,
  CONFIRMED,
  DONE,
  CANCELLED
}
