package mellowrota.core.work;

/** Identifies a place: a site, a vehicle, a thing. */
public record PlaceId(long value) implements Comparable<PlaceId> {

  public static PlaceId of(long value) {
    return new PlaceId(value);
  }

  @Override
  public int compareTo(PlaceId other) {
    return Long.compare(value, other.value);
  }
}
