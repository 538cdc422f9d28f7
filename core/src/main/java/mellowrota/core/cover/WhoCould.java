package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;

/**
 * Who could do a work: each person is tried with the whole of it as confirmed work, and every clash
 * that involves it is a reason. Nobody is left out.
 */
public final class WhoCould {

  private WhoCould() {}

  /** What speaks against it: a clash, or what only a trial meets. */
  public enum Why {
    /** They stand there already. */
    HERE,
    /** They are with us no longer. */
    LEFT,
    /** They may not stand alone, and nobody would stand beside them. */
    ALONE,
    /** A calendar of theirs could not be read for too long. */
    UNKNOWN,
    DOUBLE,
    LEAVE,
    BUSY,
    TRAVEL,
    REST,
    MARGIN,
    HOURS,
    LONGEST,
    WEEK,
    PERIOD,
    DAYS,
    NIGHTS,
    SKILL,
    CAPACITY,
    DUE;

    static Why of(Clash.Kind kind) {
      return valueOf(kind.name());
    }
  }

  /**
   * A reason with the time that it is about.
   *
   * @param never it rules them out; else it only warns
   * @param with what of theirs it clashes with
   */
  public record Reason(Why why, boolean never, TimeSpan span, List<Clash.Item> with) {
    public Reason {
      with = List.copyOf(with);
    }
  }

  /**
   * Somebody, with what is known of them around the work.
   *
   * @param of theirs, without where they stand what is short already
   * @param unknown whether a calendar of theirs could not be read for too long
   * @param here where they stand what is short already
   * @param alone where they would stand alone though they may not
   * @param until from when they are with us no longer
   * @param load of work in the week, to order by
   * @param contract hours of a week; empty: as most have
   * @param way to it from what they do before or after; empty: nobody knows
   */
  public record Candidate(
      Commitments of,
      String name,
      boolean unknown,
      List<TimeSpan> here,
      List<TimeSpan> alone,
      Optional<Instant> until,
      Duration load,
      Optional<Duration> contract,
      Optional<Duration> way) {
    public Candidate {
      Objects.requireNonNull(of, "of");
      Objects.requireNonNull(name, "name");
      Objects.requireNonNull(until, "until");
      Objects.requireNonNull(load, "load");
      Objects.requireNonNull(contract, "contract");
      Objects.requireNonNull(way, "way");
      here = List.copyOf(here);
      alone = List.copyOf(alone);
    }

    public PersonId person() {
      return of.person();
    }

    /** The part of their contract that is taken. */
    private double laden() {
      long whole = contract.filter(one -> !one.isZero()).orElse(USUAL_WEEK).toMinutes();
      return (double) load.toMinutes() / whole;
    }
  }

  private static final Duration USUAL_WEEK = Duration.ofHours(40);

  /** Whether they could. */
  public enum Verdict {
    YES,
    WITH_REASON,
    NO
  }

  /** What was found of one. */
  public record Answer(Candidate candidate, Verdict verdict, List<Reason> reasons) {
    public Answer {
      reasons = List.copyOf(reasons);
    }

    boolean isUnknown() {
      return reasons.stream().anyMatch(one -> one.why() == Why.UNKNOWN);
    }
  }

  private static final Duration FAR = Duration.ofDays(1);

  private static final Comparator<Answer> BEST_FIRST =
      Comparator.comparing(Answer::verdict)
          .thenComparing((Answer one) -> one.reasons().size())
          .thenComparing((Answer one) -> one.candidate().laden())
          .thenComparing((Answer one) -> one.candidate().way().orElse(FAR))
          .thenComparing((Answer one) -> one.candidate().name())
          .thenComparing((Answer one) -> one.candidate().person());

  /** Who could first, then who could with a reason, then who cannot. */
  public static List<Answer> of(
      Work trial, List<Candidate> candidates, Limits limits, Travel travel) {
    return candidates.stream()
        .map(one -> answer(trial, one, limits, travel))
        .sorted(BEST_FIRST)
        .toList();
  }

  static Answer answer(Work trial, Candidate one, Limits limits, Travel travel) {
    TimeSpan span = trial.span();
    List<Reason> reasons = new ArrayList<>();
    meets(span, one.here()).ifPresent(at -> reasons.add(own(Why.HERE, true, at)));
    one.until()
        .filter(until -> until.isBefore(span.end()))
        .map(until -> TimeSpan.of(until.isAfter(span.start()) ? until : span.start(), span.end()))
        .ifPresent(at -> reasons.add(own(Why.LEFT, true, at)));
    meets(span, one.alone()).ifPresent(at -> reasons.add(own(Why.ALONE, true, at)));
    for (Clash clash : Clashes.of(one.of().and(trial), limits, travel)) {
      if (clash.involves(trial.id())) {
        List<Clash.Item> with =
            clash.items().stream().filter(item -> !item.equals(trial.item())).toList();
        reasons.add(
            new Reason(
                Why.of(clash.kind()), clash.level() == Clash.Level.NEVER, clash.span(), with));
      }
    }
    if (one.unknown()) {
      reasons.add(own(Why.UNKNOWN, false, span));
    }
    Verdict verdict =
        reasons.isEmpty()
            ? Verdict.YES
            : reasons.stream().anyMatch(Reason::never) ? Verdict.NO : Verdict.WITH_REASON;
    return new Answer(one, verdict, reasons);
  }

  private static Reason own(Why why, boolean never, TimeSpan span) {
    return new Reason(why, never, span, List.of());
  }

  /** The first part in which they meet; touching is no meeting. */
  private static Optional<TimeSpan> meets(TimeSpan span, List<TimeSpan> others) {
    return others.stream()
        .flatMap(other -> span.intersection(other).stream())
        .min(Comparator.comparing(TimeSpan::start));
  }
}
