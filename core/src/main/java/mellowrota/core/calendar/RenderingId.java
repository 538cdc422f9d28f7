package mellowrota.core.calendar;

/**
 * Identifies one way of reading a calendar: as owner or member, through a share, through a feed.
 */
public record RenderingId(long value) implements Comparable<RenderingId> {

  public static RenderingId of(long value) {
    return new RenderingId(value);
  }

  @Override
  public int compareTo(RenderingId other) {
    return Long.compare(value, other.value);
  }
}
