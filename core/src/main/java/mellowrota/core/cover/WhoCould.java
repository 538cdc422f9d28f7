package mellowrota.core.cover;

import java.time.Duration;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
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
    /** They are no longer with us then. */
    LEFT,
    CAPACITY,
    DUE;

    static Why of(Clash.Kind kind) {
      return valueOf(kind.name());
    }
  }

  /**
   * How much it would be, and what the house allows.
   *
   * @param is minutes of a time, else a count
   */
  public record Figure(long is, long limit) {

    /** What is measured of somebody with all they have; empty: a clash of its sort has none. */
    public static Optional<Figure> of(Clash clash, Commitments of, Limits limits) {
      TimeSpan span = clash.span();
      long is =
          switch (clash.kind()) {
            case REST, LONGEST -> span.length().toMinutes();
            case WEEK -> of.load(span).toMinutes();
            case DAYS, NIGHTS -> ChronoUnit.DAYS.between(of.day(span.start()), of.day(span.end()));
            default -> -1;
          };
      return is < 0
          ? Optional.empty()
          : limits.amount(clash.kind()).map(most -> new Figure(is, most));
    }
  }

  /**
   * A reason with the time that it is about.
   *
   * @param never it rules them out; else it only warns
   * @param with what of theirs it clashes with
   * @param figure of what is measured
   */
  public record Reason(
      Why why, boolean never, TimeSpan span, List<Clash.Item> with, Optional<Figure> figure) {
    public Reason {
      with = List.copyOf(with);
      Objects.requireNonNull(figure, "figure");
    }
  }

  /**
   * How somebody stands to what is asked.
   *
   * @param agency sent by an agency
   * @param office of the office, who are suggested for nothing that is not their team's
   * @param team of the team whose work it is
   */
  public record Ties(boolean agency, boolean office, boolean team) {
    public static final Ties NONE = new Ties(false, false, false);
  }

  /**
   * Somebody, with what is known of them around the work.
   *
   * @param of theirs, without where they stand what is short already
   * @param unknown whether a calendar of theirs could not be read for too long
   * @param here where they stand what is short already
   * @param alone where they would stand alone though they may not
   * @param load of work in the week, to order by
   * @param contract hours of a week; empty: as most have
   * @param ties to what is asked, to order by
   */
  public record Candidate(
      Commitments of,
      String name,
      boolean unknown,
      List<TimeSpan> here,
      List<TimeSpan> alone,
      Duration load,
      Optional<Duration> contract,
      Ties ties) {
    public Candidate {
      Objects.requireNonNull(of, "of");
      Objects.requireNonNull(name, "name");
      Objects.requireNonNull(load, "load");
      Objects.requireNonNull(contract, "contract");
      Objects.requireNonNull(ties, "ties");
      here = List.copyOf(here);
      alone = List.copyOf(alone);
    }

    public PersonId person() {
      return of.person();
    }

    /** The same, who would be alone in these. */
    Candidate alone(List<TimeSpan> spans) {
      return new Candidate(of, name, unknown, here, spans, load, contract, ties);
    }

    /** The same with one more work. */
    Candidate with(Work work) {
      Duration more = work.allDay() ? load : load.plus(work.span().length());
      return new Candidate(of.and(work), name, unknown, here, alone, more, contract, ties);
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

  /**
   * What was found of one.
   *
   * @param way to it from the nearest of what they do within a day of it; empty: nobody knows
   * @param there whether they are at its place that day
   */
  public record Answer(
      Candidate candidate,
      Verdict verdict,
      List<Reason> reasons,
      Optional<Duration> way,
      boolean there) {
    public Answer {
      reasons = List.copyOf(reasons);
    }
  }

  private static final Duration A_DAY = Duration.ofDays(1);

  /** Where nobody knows. */
  private static final Duration FAR = Duration.ofDays(1000);

  static final Comparator<Answer> BEST_FIRST =
      Comparator.comparing(Answer::verdict)
          .thenComparing((Answer one) -> one.reasons().size())
          .thenComparing((Answer one) -> one.candidate().of().hours().isUnsaid())
          .thenComparing((Answer one) -> one.candidate().ties().agency())
          .thenComparing((Answer one) -> !one.candidate().ties().team())
          .thenComparing((Answer one) -> !one.there())
          .thenComparing((Answer one) -> one.candidate().laden())
          .thenComparing((Answer one) -> one.way().orElse(FAR))
          .thenComparing((Answer one) -> one.candidate().name())
          .thenComparing((Answer one) -> one.candidate().person());

  /** Who could first, then who could with a reason, then who cannot. */
  public static List<Answer> of(Work trial, List<Candidate> candidates, Bounds bounds) {
    return of(trial, candidates, bounds, Set.of());
  }

  /**
   * The same for work that brings others with it.
   *
   * @param others who come with it, whoever of the candidates does
   */
  public static List<Answer> of(
      Work trial, List<Candidate> candidates, Bounds bounds, Set<PersonId> others) {
    List<Reason> common = crowding(trial, others, bounds);
    boolean counted = bounds.countsPeople(trial);
    // One person's time says nothing of another's, so that all processors look at them.
    return candidates.parallelStream()
        .map(
            one -> {
              Set<PersonId> all = new HashSet<>(others);
              all.add(one.person());
              return answer(trial, one, bounds, counted ? crowding(trial, all, bounds) : common);
            })
        .sorted(BEST_FIRST)
        .toList();
  }

  private static List<Reason> crowding(Work trial, Set<PersonId> people, Bounds bounds) {
    return bounds.tooMuch(trial, people).stream()
        .map(clash -> reason(clash, trial, Optional.empty()))
        .toList();
  }

  private static Reason reason(Clash clash, Work trial, Optional<Figure> figure) {
    List<Clash.Item> with =
        clash.items().stream().filter(item -> !item.equals(trial.item())).toList();
    boolean never = clash.level() == Clash.Level.NEVER;
    return new Reason(Why.of(clash.kind()), never, clash.span(), with, figure);
  }

  /** Of one alone, whatever else stands at its place. */
  static Answer answer(Work trial, Candidate one, Bounds bounds) {
    return answer(trial, one, bounds, List.of());
  }

  private static Answer answer(Work asked, Candidate one, Bounds bounds, List<Reason> common) {
    Work trial = one.of().asTheirs(asked);
    TimeSpan span = trial.span();
    List<Reason> reasons = new ArrayList<>();
    meets(span, one.here()).ifPresent(at -> reasons.add(own(Why.HERE, true, at)));
    meets(span, one.alone()).ifPresent(at -> reasons.add(own(Why.ALONE, true, at)));
    Commitments with = one.of().and(trial);
    for (Clash clash : Clashes.involving(trial, one.of(), bounds.limits(), bounds.travel())) {
      reasons.add(reason(clash, trial, Figure.of(clash, with, bounds.limits())));
    }
    reasons.addAll(common);
    if (one.unknown()) {
      reasons.add(own(Why.UNKNOWN, false, span));
    }
    Verdict verdict =
        reasons.isEmpty()
            ? Verdict.YES
            : reasons.stream().anyMatch(Reason::never) ? Verdict.NO : Verdict.WITH_REASON;
    Optional<Duration> way = way(trial, one.of(), bounds.travel());
    return new Answer(one, verdict, reasons, way, isThere(trial, one.of()));
  }

  private static boolean isThere(Work trial, Commitments of) {
    LocalDate day = of.day(trial.span().start());
    return trial.place().isPresent()
        && of.work().stream()
            .anyMatch(
                one ->
                    !one.tentative()
                        && one.place().equals(trial.place())
                        && !of.day(one.span().start()).isAfter(day)
                        && one.span().end().isAfter(of.start(day)));
  }

  private static Optional<Duration> way(Work trial, Commitments of, Travel travel) {
    if (trial.place().isEmpty()) {
      return Optional.empty();
    }
    TimeSpan around =
        TimeSpan.of(trial.span().start().minus(A_DAY), trial.span().end().plus(A_DAY));
    return of.work().stream()
        .filter(one -> !one.tentative() && !one.allDay() && one.span().overlaps(around))
        .flatMap(one -> one.place().stream())
        .flatMap(place -> travel.between(place, trial.place().get()).stream())
        .min(Comparator.naturalOrder());
  }

  private static Reason own(Why why, boolean never, TimeSpan span) {
    return new Reason(why, never, span, List.of(), Optional.empty());
  }

  /** The first part in which they meet; touching is no meeting. */
  private static Optional<TimeSpan> meets(TimeSpan span, List<TimeSpan> others) {
    return others.stream()
        .flatMap(other -> span.intersection(other).stream())
        .min(Comparator.comparing(TimeSpan::start));
  }
}
