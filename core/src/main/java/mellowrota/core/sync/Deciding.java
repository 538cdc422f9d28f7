package mellowrota.core.sync;

import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Who decides in which outside calendars somebody's own calendar is copied: the house where it
 * keeps that to itself, else the person, else what the house does for who says nothing; where
 * nobody has linked anything, it is held by us alone.
 *
 * @param overruled the outside calendars that nothing is to stand in (any more)
 */
public record Deciding(By by, Set<Long> overruled) {

  /** Whose word it is, the strongest first. */
  public enum By {
    /** The house, for everybody. */
    LOCK,
    PERSON,
    /** The house, for who says nothing. */
    DEFAULT,
    /** Nobody: it is served and copied nowhere. */
    HELD
  }

  /**
   * An outside calendar that is to take somebody's own.
   *
   * @param ofTheHouse whether the account is the house's
   * @param verified whether all that should stand there was seen to stand there
   * @param overruled whether nothing stands there by now, since it was overruled before
   */
  public record Outlet(long id, boolean ofTheHouse, boolean verified, boolean overruled) {}

  public Deciding {
    Objects.requireNonNull(by, "by");
    overruled = Set.copyOf(overruled);
  }

  /**
   * What is overruled stays until all that takes its place is verified; what is off by then stays
   * off, though more is on its way.
   *
   * @param locked whether the house keeps it to itself
   */
  public static Deciding of(boolean locked, List<Outlet> outlets) {
    List<Outlet> house = outlets.stream().filter(Outlet::ofTheHouse).toList();
    List<Outlet> own = outlets.stream().filter(one -> !one.ofTheHouse()).toList();
    if (locked) {
      return new Deciding(By.LOCK, replaced(own, house));
    }
    if (!own.isEmpty()) {
      return new Deciding(By.PERSON, replaced(house, own));
    }
    return new Deciding(house.isEmpty() ? By.HELD : By.DEFAULT, Set.of());
  }

  private static Set<Long> replaced(List<Outlet> old, List<Outlet> by) {
    boolean verified = by.stream().allMatch(Outlet::verified);
    return old.stream()
        .filter(one -> verified || one.overruled())
        .map(Outlet::id)
        .collect(Collectors.toSet());
  }
}
