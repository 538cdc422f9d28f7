package mellowrota.server.deadlines;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.Comparison;
import mellowrota.core.deadline.Given;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.deadline.Reckoner;
import mellowrota.core.deadline.Reminders;
import mellowrota.core.deadline.Step;
import mellowrota.core.deadline.Sum;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;

/**
 * What becomes of a set: both its sides, and its deadlines as they would be. The act and the look
 * before it go by the same plan.
 *
 * @param next as it would be kept
 * @param before as it stands; nothing of a set that is new
 * @param deadlines in the order of the chain, then those of steps that it has no more
 */
record DeadlineSetPlan(
    KeptSet.Belongs to,
    Chain chain,
    KeptSet.State next,
    List<Reckoned> before,
    List<Reckoned> after,
    List<Comparison> lines,
    List<Deadline> deadlines) {

  /** At which the house reminds of a whole day. */
  private static final LocalTime REMINDER_HOUR = LocalTime.of(8, 0);

  /**
   * The deadline of a step.
   *
   * @param before empty: it is made
   * @param after empty: the step has none; as the one before: it stays as it is
   */
  record Deadline(Name step, Optional<WorkRecord> before, Optional<WorkRecord> after) {

    boolean isMade() {
      return before.isEmpty() && after.isPresent();
    }

    boolean changes() {
      return before.isPresent() && !before.equals(after);
    }
  }

  /** A set that is made; its lines say what was left out and set by hand. */
  static DeadlineSetPlan making(
      Ground ground,
      KeptSet.Belongs to,
      KeptSet.State begun,
      DeadlineSetChange change,
      PersonId author) {
    return new Planner(ground, to, begun, author).plan(List.of(), change);
  }

  /** A set that is changed. */
  static DeadlineSetPlan changing(
      Ground ground, KeptSet set, DeadlineSetChange change, PersonId author) {
    Planner planner = new Planner(ground, set.to(), set.state(), author);
    List<Reckoned> before = ground.stands(set.to(), set.state());
    return change.isOff() ? planner.off(before) : planner.plan(before, change);
  }

  /** Whether anything of it would be otherwise. */
  boolean changes(KeptSet.State state) {
    return deadlines.stream().anyMatch(one -> one.isMade() || one.changes()) || !next.equals(state);
  }

  /** Makes plans of one set. */
  private static final class Planner {
    private final Ground ground;
    private final KeptSet.Belongs to;
    private final KeptSet.State state;
    private final PersonId author;
    private final Map<Name, KeptSet.Line> lines;
    private final Optional<WorkRecord> work;
    private final WorkingDays days;
    private List<Meant> names = List.of();

    Planner(Ground ground, KeptSet.Belongs to, KeptSet.State state, PersonId author) {
      this.ground = ground;
      this.to = to;
      this.state = state;
      this.author = author;
      lines = state.byStep();
      work = ground.record(to.record());
      days = ground.world.places().workDays(to.place());
    }

    /** All that is not done comes off; what the set was reckoned from stays as it is. */
    DeadlineSetPlan off(List<Reckoned> before) {
      Chain chain = ground.chain(state.chainVersion());
      List<Deadline> deadlines = new ArrayList<>();
      List<Comparison> comparisons = new ArrayList<>();
      for (KeptSet.Line line : state.lines()) {
        Optional<WorkRecord> record = ground.record(line.record());
        deadlines.add(new Deadline(line.step(), record, record.map(Planner::comesOff)));
      }
      for (Reckoned one : before) {
        if (one.date().isPresent()) {
          boolean done = one.standing() == Reckoned.Standing.DONE;
          comparisons.add(
              new Comparison(
                  one.step().name(),
                  done ? Comparison.Kind.DONE : Comparison.Kind.REMOVED,
                  Optional.of(one),
                  done ? Optional.of(one) : Optional.empty(),
                  false,
                  Optional.empty(),
                  List.of()));
        }
      }
      return new DeadlineSetPlan(
          to, chain, state.withOff(true), before, before, comparisons, deadlines);
    }

    DeadlineSetPlan plan(List<Reckoned> before, DeadlineSetChange change) {
      KeptSet.State wanted = wanted(change);
      Chain chain = ground.chain(wanted.chainVersion());
      names = ground.version(wanted.chainVersion()).text().names();
      Given given = said(ground.given(to, wanted), chain, before, change);
      List<Reckoned> after = Reckoner.of(chain, given);
      List<Deadline> deadlines = new ArrayList<>();
      List<KeptSet.Line> next = new ArrayList<>();
      for (Reckoned one : after) {
        Deadline deadline = deadline(one);
        deadlines.add(deadline);
        next.add(line(one, deadline, given));
      }
      Set<Name> stay = new HashSet<>(chain.steps().stream().map(Step::name).toList());
      for (KeptSet.Line line : state.lines()) {
        if (!stay.contains(line.step())) {
          Optional<WorkRecord> gone = ground.record(line.record());
          deadlines.add(new Deadline(line.step(), gone, gone.map(Planner::comesOff)));
          // Should the chain have the step again, its deadline is the same.
          next.add(new KeptSet.Line(line.step(), line.record(), Optional.empty(), false, false));
        }
      }
      return new DeadlineSetPlan(
          to,
          chain,
          wanted.withLines(next),
          before,
          after,
          Comparison.of(before, after, days, to.zone(), ground.now),
          deadlines);
    }

    /** With what is said of the whole set. */
    private KeptSet.State wanted(DeadlineSetChange change) {
      Map<Name, Boolean> answers = new HashMap<>(state.answers());
      change
          .answers()
          .forEach(
              (question, yes) ->
                  yes.ifPresentOrElse(
                      it -> answers.put(question, it), () -> answers.remove(question)));
      KeptSet.State wanted =
          state
              .withKeyDate(change.keyDate().orElse(state.keyDate()))
              .withMethod(change.method().orElse(state.method()))
              .withAnswers(answers);
      if (change.newest()) {
        long chain = ground.version(state.chainVersion()).chain();
        wanted = wanted.withChainVersion(ground.latest(chain).id());
      }
      return wanted.withKeyDate(ground.keyDate(to, wanted));
    }

    /** With what is said of single steps. */
    private static Given said(
        Given given, Chain chain, List<Reckoned> before, DeadlineSetChange change) {
      if (change.steps().isEmpty()) {
        return given;
      }
      Map<Name, Optional<Due>> stood = new HashMap<>();
      before.forEach(one -> stood.put(one.step().name(), one.date()));
      Map<Name, Given.Fixed> fixed = new HashMap<>(given.fixed());
      for (Step step : chain.steps()) {
        DeadlineSetChange.OfStep of = change.step(step.name());
        Given.Fixed now = fixed.getOrDefault(step.name(), Given.Fixed.NOTHING);
        Optional<Due> stands = stood.getOrDefault(step.name(), Optional.empty());
        fixed.put(
            step.name(),
            of.keep()
                ? new Given.Fixed(stands.isEmpty(), now.done(), stands)
                : new Given.Fixed(
                    of.leftOut().orElse(now.leftOut()),
                    now.done(),
                    of.byHand().orElse(now.byHand())));
      }
      return given.with(fixed);
    }

    private KeptSet.Line line(Reckoned one, Deadline deadline, Given given) {
      Name step = one.step().name();
      Given.Fixed said = given.fixed().getOrDefault(step, Given.Fixed.NOTHING);
      Optional<Due> due =
          switch (one.standing()) {
            case RECKONED, DONE -> one.date();
            case BY_HAND -> one.sum().map(Sum::result);
            // What is called off keeps its date, so that it is known who called it off.
            case LEFT_OUT -> deadline.after().flatMap(WorkRecord::due);
            case PENDING, NO_DATE, DOES_NOT_APPLY -> Optional.empty();
          };
      return new KeptSet.Line(
          step,
          deadline.after().map(WorkRecord::id),
          due,
          said.leftOut(),
          one.standing() == Reckoned.Standing.BY_HAND || said.byHand().isPresent());
    }

    // ---- Deadlines -----------------------------------------------------------------------------

    private Deadline deadline(Reckoned one) {
      Name step = one.step().name();
      Optional<WorkRecord> before =
          ground.record(Optional.ofNullable(lines.get(step)).flatMap(KeptSet.Line::record));
      if (one.standing() == Reckoned.Standing.DONE) {
        return new Deadline(step, before, before);
      }
      if (one.date().isEmpty()) {
        return new Deadline(step, before, before.map(Planner::calledOff));
      }
      Due due = one.date().get();
      List<Duration> reminders = reminders(one.step(), due);
      WorkRecord after =
          before
              .map(
                  record ->
                      (record.state() == State.CANCELLED
                              ? record.with().state(State.CONFIRMED)
                              : record.with())
                          .due(Optional.of(record.due().filter(due::isSame).orElse(due)))
                          .reminders(reminders)
                          .build())
              .orElseGet(() -> made(one.step(), due, reminders));
      return new Deadline(step, before, Optional.of(after));
    }

    /** What is done stays. */
    private static WorkRecord comesOff(WorkRecord record) {
      return record.isDone() ? record : calledOff(record);
    }

    private static WorkRecord calledOff(WorkRecord record) {
      return record.state() == State.CANCELLED
          ? record
          : record.with().state(State.CANCELLED).build();
    }

    /** A deadline is of the work that its key date belongs to: for whom that is, it is. */
    private WorkRecord made(Step step, Due due, List<Duration> reminders) {
      WorkRecord.Builder made =
          WorkRecord.blank(RecordId.of(0), "new", Kind.DEADLINE, author, ground.now)
              .place(to.place())
              .due(Optional.of(due))
              .assignments(people(step))
              .reminders(reminders);
      Optional<DetailValue> title = Optional.empty();
      if (work.isPresent()) {
        WorkRecord record = work.get();
        made.isPrivate(record.isPrivate()).team(record.team());
        for (DetailKey key :
            List.of(DetailKey.TIMES, DetailKey.PLACE, DetailKey.TEAM, DetailKey.PEOPLE)) {
          Optional.ofNullable(record.details().get(key))
              .filter(value -> value.forWhom().isPresent())
              .ifPresent(value -> made.detail(key, new DetailValue("", value.forWhom())));
        }
        title = Optional.ofNullable(record.details().get(DetailKey.TITLE));
      }
      return made.detail(
              DetailKey.TITLE,
              new DetailValue(step.name().text(), title.flatMap(DetailValue::forWhom)))
          .build();
    }

    private List<Assignment> people(Step step) {
      Set<Assignment> found = new LinkedHashSet<>();
      if (step.who().isEmpty()) {
        holding(RoleId.LEAD).forEach(one -> found.add(assignment(one, RoleId.LEAD)));
      }
      for (Step.For one : step.who()) {
        if (one.holding()) {
          RoleId of = role(one.name());
          RoleId as = one.as().map(this::role).orElse(of);
          holding(of).forEach(holder -> found.add(assignment(holder, as)));
        } else {
          RoleId as = role(one.as().orElseThrow());
          holder(one.name()).ifPresent(holder -> found.add(assignment(holder, as)));
        }
      }
      return List.copyOf(found);
    }

    private Assignment assignment(Holder holder, RoleId role) {
      return new Assignment(1, holder, role, ground.now);
    }

    private List<Holder> holding(RoleId role) {
      return work.stream()
          .flatMap(record -> record.assignments().stream())
          .filter(one -> one.role().equals(role))
          .map(Assignment::holder)
          .distinct()
          .toList();
    }

    private RoleId role(Name name) {
      return names.stream()
          .filter(one -> one.sort() == Meant.Sort.ROLE && one.name().equals(name))
          .findFirst()
          .map(one -> RoleId.of((int) one.number()))
          .orElse(RoleId.LEAD);
    }

    /** Nobody where they have left. */
    private Optional<Holder> holder(Name name) {
      return names.stream()
          .filter(one -> one.sort().isHolder() && one.name().equals(name))
          .findFirst()
          .flatMap(
              one ->
                  one.sort() == Meant.Sort.TEAM
                      ? ground
                          .world
                          .crew()
                          .team(TeamId.of(one.number()))
                          .map(t -> new Holder.WholeTeam(t.id()))
                      : ground
                          .world
                          .crew()
                          .person(PersonId.of(one.number()))
                          .filter(person -> !person.hasLeft())
                          .map(person -> new Holder.OnePerson(person.id())));
    }

    private List<Duration> reminders(Step step, Due due) {
      return Reminders.of(step.reminders(), due, days, to.zone(), REMINDER_HOUR).stream()
          .map(at -> before(due, at))
          .toList();
    }

    /** A day has no zone on a calendar: it is counted by the clock, over a change of it too. */
    private Duration before(Due due, Instant at) {
      return due instanceof Due.At timed
          ? Duration.between(at, timed.time())
          : Duration.between(LocalTimes.local(at, to.zone()), due.day(to.zone()).atStartOfDay());
    }
  }

  /** Who is on its deadlines that stand. */
  Stream<Assignment> people() {
    return deadlines.stream()
        .flatMap(one -> one.after().stream())
        .filter(one -> one.state() != State.CANCELLED)
        .flatMap(one -> one.assignments().stream());
  }
}
