package mellowrota.core.cover;

import java.time.ZoneId;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;

/**
 * One visit as it takes somebody's time; only for roles that do.
 *
 * @param id of the visit, the same for all on it
 * @param span its own times without margins; of all-day work its days where somebody has it
 * @param days of all-day work, which has no hours: it is not rested from, added up or travelled to
 * @param margins what is said of them; of a side of which nothing is, whoever has it says it
 * @param meanwhile its duty lets other work be done meanwhile
 * @param asks the places of what it stands
 * @param site in whose days a skill ends
 * @param uses what else it takes room of
 */
public record Work(
    String id,
    TimeSpan span,
    Optional<DaySpan> days,
    boolean tentative,
    Optional<PlaceId> place,
    MarginSetting margins,
    boolean meanwhile,
    Asks asks,
    ZoneId site,
    List<PlaceId> uses) {

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
    Objects.requireNonNull(asks, "asks");
    uses = List.copyOf(uses);
  }

  public boolean allDay() {
    return days.isPresent();
  }

  /** With both margins said, and no room taken but at its place. */
  public Work(
      String id,
      TimeSpan span,
      Optional<DaySpan> days,
      boolean tentative,
      Optional<PlaceId> place,
      Margins margins,
      boolean meanwhile,
      List<Optional<String>> asks,
      ZoneId site) {
    this(
        id,
        span,
        days,
        tentative,
        place,
        MarginSetting.of(margins),
        meanwhile,
        Asks.of(asks),
        site,
        List.of());
  }

  /** The same as somebody has it, whose local days all-day work takes, with their margins. */
  Work of(ZoneId zone, MarginSetting theirs) {
    TimeSpan there = days.map(all -> all.in(zone)).orElse(span);
    MarginSetting settled = margins.orElse(theirs);
    return there.equals(span) && settled.equals(margins)
        ? this
        : new Work(id, there, days, tentative, place, settled, meanwhile, asks, site, uses);
  }

  /** Its margins, which all-day work and what lets other work be done do not have. */
  Margins margin() {
    return allDay() || meanwhile ? Margins.NONE : margins.margins();
  }

  /** Its own times and its margins. */
  TimeSpan withMargin() {
    return margin().areNone()
        ? span
        : TimeSpan.of(span.start().minus(margin().before()), span.end().plus(margin().after()));
  }

  /** Where it takes room. */
  List<PlaceId> rooms() {
    return Stream.concat(place.stream(), uses.stream()).toList();
  }

  /** The same as if it were confirmed. */
  public Work sure() {
    return new Work(id, span, days, false, place, margins, meanwhile, asks, site, uses);
  }

  /** The same at another time. */
  public Work at(TimeSpan time) {
    return new Work(id, time, days, tentative, place, margins, meanwhile, asks, site, uses);
  }

  /** The same with other places, all its time. */
  public Work asking(List<Optional<String>> places) {
    return new Work(
        id, span, days, tentative, place, margins, meanwhile, Asks.of(places), site, uses);
  }

  /** The same as another visit. */
  Work called(String other) {
    return new Work(other, span, days, tentative, place, margins, meanwhile, asks, site, uses);
  }

  Clash.Item item() {
    return new Clash.Item(Clash.Sort.WORK, id, span);
  }
}
