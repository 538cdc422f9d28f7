package mellowrota.core.cover;

import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;

/**
 * How long it takes from one place to another: by the house's table, else by the great circle at
 * the house's speed, in minutes rounded up.
 *
 * @param kmPerHour zero: distances say nothing
 */
public record Travel(Map<Way, Duration> table, Map<PlaceId, Position> positions, double kmPerHour) {

  /** Nobody knows how far anything is. */
  public static final Travel UNKNOWN = new Travel(Map.of(), Map.of(), 0);

  /** Mean radius of the earth in km (IUGG). */
  private static final double RADIUS = 6371.0088;

  /** From one place to another. */
  public record Way(PlaceId from, PlaceId to) {}

  public Travel {
    table = Map.copyOf(table);
    positions = Map.copyOf(positions);
  }

  /** A row of the table serves both ways unless the way back has its own; empty: nobody knows. */
  public Optional<Duration> between(PlaceId from, PlaceId to) {
    if (from.equals(to)) {
      return Optional.of(Duration.ZERO);
    }
    Duration said = table.get(new Way(from, to));
    if (said == null) {
      said = table.get(new Way(to, from));
    }
    if (said != null) {
      return Optional.of(said);
    }
    Position one = positions.get(from);
    Position other = positions.get(to);
    if (one == null || other == null || kmPerHour <= 0) {
      return Optional.empty();
    }
    return Optional.of(
        Duration.ofMinutes((long) Math.ceil(60 * kilometres(one, other) / kmPerHour)));
  }

  /** Haversine. */
  private static double kilometres(Position one, Position other) {
    double north = Math.toRadians(other.latitude() - one.latitude()) / 2;
    double east = Math.toRadians(other.longitude() - one.longitude()) / 2;
    double h =
        Math.pow(Math.sin(north), 2)
            + Math.cos(Math.toRadians(one.latitude()))
                * Math.cos(Math.toRadians(other.latitude()))
                * Math.pow(Math.sin(east), 2);
    return 2 * RADIUS * Math.asin(Math.min(1, Math.sqrt(h)));
  }
}
