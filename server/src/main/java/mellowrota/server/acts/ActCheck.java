package mellowrota.server.acts;

/**
 * Looks at an act once all it does is known, before anything of it reaches a calendar. What it
 * throws refuses the act as a whole.
 */
public interface ActCheck {

  /**
   * @throws mellowrota.server.platform.Problem where it may not be done so
   */
  void require(Act act);
}
