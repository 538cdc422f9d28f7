package mellowrota.core.rule;

import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.ValueTest;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/** What a rule asks of a record and one of its visits (LANDING 3). */
public sealed interface Condition {

  boolean holds(WorkRecord record, Visit visit);

  /** The details it looks at (LANDING 4, 18). */
  default Set<DetailKey> tests() {
    return Set.of();
  }

  /**
   * The parts that do not hold, as reasons for somebody who knows these details: a part that tests
   * others counts as not met, whether it holds or not.
   */
  default List<Reason.Code> failing(WorkRecord record, Visit visit, Predicate<DetailKey> known) {
    if (!tests().stream().allMatch(known)) {
      return List.of(Reason.Code.RULE_NOT_MET);
    }
    return holds(record, visit) ? List.of() : List.of(code());
  }

  Reason.Code code();

  private static Set<DetailKey> tests(List<Condition> parts) {
    return parts.stream().flatMap(part -> part.tests().stream()).collect(Collectors.toSet());
  }

  record KindIs(Set<Kind> kinds) implements Condition {
    public KindIs {
      kinds = EnumSet.copyOf(kinds);
    }

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return kinds.contains(record.kind());
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_KIND;
    }
  }

  /**
   * On done work it holds for done and for the state before it; a visit under its least head count
   * counts as tentative (LANDING 3, 9).
   */
  record StateIs(Set<State> states) implements Condition {
    public StateIs {
      states = EnumSet.copyOf(states);
    }

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      State planned = record.isDone() ? record.stateBefore() : record.state();
      return states.contains(record.tentative(visit.no()) ? State.TENTATIVE : planned)
          || record.isDone() && states.contains(State.DONE);
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.TIMES);
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_STATE;
    }
  }

  record Tagged(String tag) implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return record.tags().contains(tag);
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_TAG;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.TAGS);
    }
  }

  record TeamIs(TeamId team) implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return record.team().filter(team::equals).isPresent();
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_TEAM;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.TEAM);
    }
  }

  record PlaceIs(PlaceId place) implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return record.place().filter(place::equals).isPresent();
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_PLACE;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.PLACE);
    }
  }

  /** Somebody holds the role on this visit. */
  record RolePresent(RoleId role) implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return record.on(visit.no()).stream().anyMatch(a -> a.role().equals(role));
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_ROLE;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.PEOPLE);
    }
  }

  /**
   * The record has the detail, and it applies there.
   *
   * @param applies whether it means anything on a record
   */
  record DetailPresent(DetailKey detail, Predicate<WorkRecord> applies) implements Condition {

    /** Of a detail that always applies. */
    public DetailPresent(DetailKey detail) {
      this(detail, record -> true);
    }

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      if (!applies.test(record)) {
        return false;
      }
      if (detail.equals(DetailKey.PLACE)) {
        return record.place().isPresent();
      }
      if (detail.equals(DetailKey.TIMES)) {
        return record.due().isPresent() || visit.when().isPresent();
      }
      return record.text(detail).isPresent();
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_DETAIL;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(detail);
    }
  }

  /**
   * The record has a value in the detail that stands so to another, and the detail applies there.
   *
   * @param than a value of its sort, in its canonical form
   */
  record DetailValued(DetailDefinition detail, ValueTest test, String than) implements Condition {

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return detail.appliesTo(record)
          && record
              .text(detail.key())
              .filter(value -> test.holds(detail.sort(), value, than))
              .isPresent();
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_DETAIL;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(detail.key());
    }
  }

  record IsPrivate() implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return record.isPrivate();
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_PRIVACY;
    }
  }

  record MadeBy(PersonId author) implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return record.author().equals(author);
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_AUTHOR;
    }
  }

  /** Half-open local hours at the site; they may cross midnight. False without a timed span. */
  record StartsBetween(LocalTime from, LocalTime until) implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      if (!(visit.when().orElse(null) instanceof When.Timed timed)) {
        return false;
      }
      ZonedDateTime start = timed.start();
      boolean after = !start.toLocalTime().isBefore(from);
      boolean before = start.toLocalTime().isBefore(until);
      return from.isBefore(until) ? after && before : after || before;
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_START_HOURS;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.TIMES);
    }
  }

  record IsAllDay() implements Condition {
    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return visit.when().orElse(null) instanceof When.AllDay;
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_ALL_DAY;
    }

    @Override
    public Set<DetailKey> tests() {
      return Set.of(DetailKey.TIMES);
    }
  }

  /** An empty <i>all</i> holds. */
  record All(List<Condition> parts) implements Condition {
    public All {
      parts = List.copyOf(parts);
    }

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      for (Condition part : parts) {
        if (!part.holds(record, visit)) {
          return false;
        }
      }
      return true;
    }

    @Override
    public List<Reason.Code> failing(WorkRecord record, Visit visit, Predicate<DetailKey> known) {
      return parts.stream().flatMap(p -> p.failing(record, visit, known).stream()).toList();
    }

    @Override
    public Set<DetailKey> tests() {
      return Condition.tests(parts);
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_NOT_MET;
    }
  }

  /** An empty <i>any</i> does not hold. */
  record Any(List<Condition> parts) implements Condition {
    public Any {
      parts = List.copyOf(parts);
    }

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return parts.stream().anyMatch(part -> part.holds(record, visit));
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_NOT_MET;
    }

    @Override
    public Set<DetailKey> tests() {
      return Condition.tests(parts);
    }
  }

  /** An empty <i>none</i> holds. */
  record None(List<Condition> parts) implements Condition {
    public None {
      parts = List.copyOf(parts);
    }

    @Override
    public boolean holds(WorkRecord record, Visit visit) {
      return parts.stream().noneMatch(part -> part.holds(record, visit));
    }

    @Override
    public Reason.Code code() {
      return Reason.Code.RULE_NOT_MET;
    }

    @Override
    public Set<DetailKey> tests() {
      return Condition.tests(parts);
    }
  }
}
