package mellowrota.core.work;

/** Degrees north and east (WGS 84). */
public record Position(double latitude, double longitude) {
  public Position {
    if (!(Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180)) {
      throw new IllegalArgumentException(
          "no place on earth: " + latitude + " north, " + longitude + " east");
    }
  }
}
