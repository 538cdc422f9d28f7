package mellowrota.server.acts;

/** Brings everything that rests on what an act changed up to date, inside its transaction. */
public interface Affected {
  /** Called first in an act that changes the world, to keep what is needed of it as it was. */
  void worldAboutToChange(Act act);

  void bringUpToDate(Act act);
}
