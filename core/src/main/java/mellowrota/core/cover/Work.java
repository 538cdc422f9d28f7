package mellowrota.core.cover;

import java.time.ZoneId;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;

/**
 * One visit as it takes somebody's time; only for roles that do.
 *
 * @param id of the visit, the same for all on it
 * @param span its own times without margins; of all-day work its days where somebody has it
 * @param days of all-day work, which has no hours: it is not rested from, added up or travelled to
 * @param meanwhile its duty lets other work be done meanwhile
 * @param asks the places of what it stands, each with the skill it wants; empty: it asks for none
 * @param site in whose days a skill ends
 */
public record Work(
    String id,
    TimeSpan span,
    Optional<DaySpan> days,
    boolean tentative,
    Optional<PlaceId> place,
    Margins margins,
    boolean meanwhile,
    List<Optional<String>> asks,
    ZoneId site) {

  static final Comparator<Work> BY_START =
      (one, other) -> {
        int order = Spans.BY_START.compare(one.span, other.span);
        return order == 0 ? one.id.compareTo(other.id) : order;
      };

  public Work {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(span, "span");
    Objects.requireNonNull(days, "days");
    Objects.requireNonNull(place, "place");
    Objects.requireNonNull(margins, "margins");
    Objects.requireNonNull(site, "site");
    asks = List.copyOf(asks);
  }

  public boolean allDay() {
    return days.isPresent();
  }

  /** The same as somebody has it, whose local days all-day work takes. */
  Work in(ZoneId zone) {
    return days.map(all -> all.in(zone))
        .filter(there -> !there.equals(span))
        .map(this::at)
        .orElse(this);
  }

  /** Its margins, which all-day work and what lets other work be done do not have. */
  Margins margin() {
    return allDay() || meanwhile ? Margins.NONE : margins;
  }

  /** Its own times and its margins. */
  TimeSpan withMargin() {
    return margin().areNone()
        ? span
        : TimeSpan.of(span.start().minus(margins.before()), span.end().plus(margins.after()));
  }

  /** The same as if it were confirmed. */
  public Work sure() {
    return new Work(id, span, days, false, place, margins, meanwhile, asks, site);
  }

  /** The same at another time. */
  public Work at(TimeSpan time) {
    return new Work(id, time, days, tentative, place, margins, meanwhile, asks, site);
  }

  /** The same with other places. */
  public Work asking(List<Optional<String>> places) {
    return new Work(id, span, days, tentative, place, margins, meanwhile, places, site);
  }

  /** The same as another visit. */
  Work called(String other) {
    return new Work(other, span, days, tentative, place, margins, meanwhile, asks, site);
  }

  Clash.Item item() {
    return new Clash.Item(Clash.Sort.WORK, id, span);
  }
}
