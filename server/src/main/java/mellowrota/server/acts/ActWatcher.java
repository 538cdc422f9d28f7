package mellowrota.server.acts;

/**
 * Looks at an act once all it does is known, before anything of it reaches a calendar: it notes
 * what follows from it, or refuses it as a whole by what it throws.
 */
public interface ActWatcher {

  /**
   * @throws mellowrota.server.platform.Problem where it may not be done so
   */
  void watch(Act act);
}
