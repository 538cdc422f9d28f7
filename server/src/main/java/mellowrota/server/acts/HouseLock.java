package mellowrota.server.acts;

/**
 * Locks the house until the end of an act. One lock order for all: the house, then records, then
 * calendars.
 */
public interface HouseLock {

  /**
   * Locks it first of all.
   *
   * @param alone no other act runs meanwhile
   * @return the version of the world
   */
  long lock(boolean alone);
}
