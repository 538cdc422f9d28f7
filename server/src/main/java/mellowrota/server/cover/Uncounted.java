package mellowrota.server.cover;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.Eligibility;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.WorkRecord;

/** Who is there while something is short and does not count, and why (COVER 7). */
final class Uncounted {

  /** Why somebody who is there does not count. */
  enum Why {
    /** In another role than the one that is asked for. */
    ROLE,
    /** It is not sure yet. */
    TENTATIVE,
    LEAVE,
    /** None of the places that are open is one they can fill. */
    SKILL,
    /** Nobody stands beside them who may stand alone. */
    ALONE,
    /** They count on something else at that time. */
    ELSEWHERE
  }

  /**
   * Somebody.
   *
   * @param record by which they are there
   * @param role of theirs, where it is another
   */
  record One(PersonId person, WorkRecord record, Why why, Optional<RoleId> role) {}

  private static final Comparator<OnIt> EARLIER =
      Comparator.comparing(OnIt::given).thenComparing((OnIt one) -> one.record().id().value());

  private Uncounted() {}

  /**
   * Those of a gap, each once.
   *
   * @param duty what asks; empty: a visit does
   * @param watched of whom the asker may be told
   */
  static List<One> of(
      Cover.Gap gap, Optional<Duties.Kept> duty, CrewTimes.Around around, Set<PersonId> watched) {
    List<One> found = new ArrayList<>();
    for (OnIt one : around.there(gap.of())) {
      boolean there =
          watched.contains(one.person())
              && one.takesTime()
              && around.isIn(one, gap.span())
              && found.stream().noneMatch(other -> other.person().equals(one.person()));
      if (there) {
        why(one, gap, duty, around)
            .ifPresent(
                why ->
                    found.add(
                        new One(
                            one.person(),
                            one.record(),
                            why,
                            why == Why.ROLE ? Optional.of(one.role()) : Optional.empty())));
      }
    }
    return found;
  }

  /** Empty: they count. */
  private static Optional<Why> why(
      OnIt one, Cover.Gap gap, Optional<Duties.Kept> duty, CrewTimes.Around around) {
    Eligibility able = around.able(one.person());
    Instant begins = around.fills(one).orElseThrow().start();
    Instant at = begins.isAfter(gap.span().start()) ? begins : gap.span().start();
    TimeSpan minute = TimeSpan.of(at, at.plusSeconds(60));
    List<Optional<String>> places =
        duty.map(kept -> around.asks(kept, minute).places())
            .orElseGet(() -> one.record().wants().places());
    if (duty.isPresent() && !around.standing(one).contains(duty.get())) {
      return Optional.of(Why.ROLE);
    }
    if (one.isTentative()) {
      return Optional.of(Why.TENTATIVE);
    }
    if (able.leave().stream().anyMatch(minute::overlaps)) {
      return Optional.of(Why.LEAVE);
    }
    if (places.stream().noneMatch(skill -> able.fits(skill, at, around.site(one)))) {
      return Optional.of(Why.SKILL);
    }
    boolean beside = duty.map(Duties.Kept::meanwhile).orElse(false);
    if (!beside && countsElsewhere(one, gap.of(), minute, around)) {
      return Optional.of(Why.ELSEWHERE);
    }
    return able.notAlone() ? Optional.of(Why.ALONE) : Optional.empty();
  }

  /** Whether something else of theirs at that time was given to them before. */
  private static boolean countsElsewhere(
      OnIt here, String ask, TimeSpan minute, CrewTimes.Around around) {
    return around.of(here.person()).stream()
        .filter(one -> !one.isTentative() && one.takesTime())
        .filter(one -> around.isIn(one, minute))
        .filter(
            one ->
                around.standing(one).stream()
                        .anyMatch(duty -> !duty.meanwhile() && !duty.key().equals(ask))
                    || !one.record().wants().isNone() && !one.ask().key().equals(ask))
        .anyMatch(one -> EARLIER.compare(one, here) <= 0);
  }
}
