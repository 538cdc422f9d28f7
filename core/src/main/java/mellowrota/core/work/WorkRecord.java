package mellowrota.core.work;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Stream;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;

/**
 * One piece of work with all that is known of it. It never leaves the server as it is: what another
 * reader gets is a face or a view of it.
 *
 * @param stateBefore the state it was in before it was done, else its state
 * @param cant somebody on it said that it cannot be done as it is
 * @param personal it belongs to its author alone: no job, team or customer
 * @param free it takes nobody's time (RFC 5545 §3.8.2.7, TRANSPARENT)
 * @param place where it is done; rules and its zone ask for this one alone
 * @param uses further places or things that it takes, such as a barge; in the order of their
 *     numbers
 * @param assignments by visit
 * @param dates further dates of its own, beside the due time
 * @param leastHeadCount how many people a visit has to have before a confirmed job counts as
 *     confirmed
 * @param reminders of its own, beside those of the rules: how long before it is due, of a day
 *     before that begins (negative: within it)
 */
public record WorkRecord(
    RecordId id,
    String ref,
    Kind kind,
    State state,
    State stateBefore,
    boolean started,
    boolean cant,
    boolean isPrivate,
    boolean personal,
    boolean free,
    PersonId author,
    Instant createdAt,
    Optional<PlaceId> place,
    List<PlaceId> uses,
    Optional<TeamId> team,
    Optional<Due> due,
    List<NamedDate> dates,
    List<Visit> visits,
    List<Assignment> assignments,
    Map<DetailKey, DetailValue> details,
    Set<String> tags,
    List<Ruling> rulings,
    OptionalInt leastHeadCount,
    Wants wants,
    Optional<Duration> estimate,
    List<Duration> reminders) {

  public WorkRecord {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(ref, "ref");
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(state, "state");
    Objects.requireNonNull(stateBefore, "stateBefore");
    Objects.requireNonNull(author, "author");
    Objects.requireNonNull(createdAt, "createdAt");
    Objects.requireNonNull(place, "place");
    Objects.requireNonNull(team, "team");
    Objects.requireNonNull(due, "due");
    Objects.requireNonNull(leastHeadCount, "leastHeadCount");
    Objects.requireNonNull(wants, "wants");
    Objects.requireNonNull(estimate, "estimate");
    PlaceId site = place.orElse(null);
    uses = uses.stream().filter(one -> !one.equals(site)).distinct().sorted().toList();
    dates = List.copyOf(dates);
    visits = List.copyOf(visits);
    // In one order whoever names them, so that what was kept and what is read are alike.
    assignments = assignments.stream().sorted(Comparator.comparingInt(Assignment::visit)).toList();
    details = Map.copyOf(details);
    tags = Set.copyOf(tags);
    rulings = List.copyOf(rulings);
    reminders = List.copyOf(reminders);
    if (visits.isEmpty()) {
      throw new IllegalArgumentException("a record has at least one visit");
    }
  }

  /** Where it is done and what it uses. */
  public List<PlaceId> places() {
    return uses.isEmpty()
        ? place.map(List::of).orElse(List.of())
        : Stream.concat(place.stream(), uses.stream()).toList();
  }

  /** The text of a detail; empty when blank or absent. */
  public Optional<String> text(DetailKey key) {
    DetailValue value = details.get(key);
    return value == null || value.text().isEmpty() ? Optional.empty() : Optional.of(value.text());
  }

  /** The visit of that number. */
  public Optional<Visit> visit(int no) {
    return visits.stream().filter(visit -> visit.no() == no).findFirst();
  }

  public List<Assignment> on(int visit) {
    boolean mixed = false;
    for (Assignment assignment : assignments) {
      mixed |= assignment.visit() != visit;
    }
    if (!mixed) {
      return assignments;
    }
    List<Assignment> found = new ArrayList<>();
    for (Assignment assignment : assignments) {
      if (assignment.visit() == visit) {
        found.add(assignment);
      }
    }
    return found;
  }

  /** People named on the visit by themselves, without Informed and without teams. */
  public long headCount(int visit) {
    return on(visit).stream()
        .filter(a -> a.holder() instanceof Holder.OnePerson && !a.role().equals(RoleId.INFORMED))
        .map(Assignment::holder)
        .distinct()
        .count();
  }

  /** The person who leads a visit, the first of several; empty where a team does, or nobody. */
  public Optional<PersonId> lead(int visit) {
    return on(visit).stream()
        .filter(one -> one.role().equals(RoleId.LEAD))
        .map(Assignment::holder)
        .filter(Holder.OnePerson.class::isInstance)
        .map(holder -> ((Holder.OnePerson) holder).person())
        .findFirst();
  }

  /** Whether entries of this visit are tentative (RFC 5545 §3.8.1.11). */
  public boolean tentative(int visit) {
    State shown = state == State.DONE ? stateBefore : state;
    return shown == State.TENTATIVE
        || kind == Kind.JOB
            && shown == State.CONFIRMED
            && leastHeadCount.isPresent()
            && headCount(visit) < leastHeadCount.getAsInt();
  }

  public boolean isDone() {
    return state == State.DONE;
  }

  /** A builder that begins with all of this record. */
  public Builder with() {
    return new Builder(this);
  }

  /** The state in which a record of this kind begins. */
  public static State firstState(Kind kind) {
    return kind == Kind.JOB ? State.DRAFT : State.CONFIRMED;
  }

  /** Begins a record with one bare visit: a job as draft, the others as confirmed. */
  public static Builder blank(
      RecordId id, String ref, Kind kind, PersonId author, Instant createdAt) {
    State state = firstState(kind);
    return new Builder(
        new WorkRecord(
            id,
            ref,
            kind,
            state,
            state,
            false,
            false,
            false,
            false,
            false,
            author,
            createdAt,
            Optional.empty(),
            List.of(),
            Optional.empty(),
            Optional.empty(),
            List.of(),
            List.of(Visit.bare(1)),
            List.of(),
            Map.of(),
            Set.of(),
            List.of(),
            OptionalInt.empty(),
            Wants.NONE,
            Optional.empty(),
            List.of()));
  }

  /** Begins a record like another: the same work, not yet begun, handed over now. */
  public static Builder like(
      WorkRecord other, RecordId id, String ref, PersonId author, Instant createdAt) {
    WorkRecord blank = blank(id, ref, other.kind, author, createdAt).build();
    Builder builder = blank.with();
    boolean planned = other.state == State.TENTATIVE || other.state == State.CONFIRMED;
    other.details.forEach(builder::detail);
    return builder
        .state(planned ? other.state : blank.state)
        .isPrivate(other.isPrivate)
        .personal(other.personal)
        .free(other.free)
        .place(other.place)
        .uses(other.uses)
        .team(other.team)
        .due(other.due)
        .dates(other.dates)
        .visits(other.visits)
        .assignments(
            other.assignments.stream()
                .map(a -> new Assignment(a.visit(), a.holder(), a.role(), createdAt))
                .toList())
        .tags(other.tags)
        .rulings(other.rulings)
        .leastHeadCount(other.leastHeadCount)
        .wants(other.wants)
        .estimate(other.estimate)
        .reminders(other.reminders);
  }

  /** Collects changes to a record; {@link #build} checks the whole. */
  public static final class Builder {
    private RecordId id;
    private final PersonId author;
    private final Instant createdAt;
    private String ref;
    private Kind kind;
    private State state;
    private State stateBefore;
    private boolean started;
    private boolean cant;
    private boolean isPrivate;
    private boolean personal;
    private boolean free;
    private Optional<PlaceId> place;
    private List<PlaceId> uses;
    private Optional<TeamId> team;
    private Optional<Due> due;
    private List<NamedDate> dates;
    private List<Visit> visits;
    private List<Assignment> assignments;
    private final Map<DetailKey, DetailValue> details;
    private Set<String> tags;
    private List<Ruling> rulings;
    private OptionalInt leastHeadCount;
    private Wants wants;
    private Optional<Duration> estimate;
    private List<Duration> reminders;

    private Builder(WorkRecord from) {
      id = from.id;
      author = from.author;
      createdAt = from.createdAt;
      ref = from.ref;
      kind = from.kind;
      state = from.state;
      stateBefore = from.stateBefore;
      started = from.started;
      cant = from.cant;
      isPrivate = from.isPrivate;
      personal = from.personal;
      free = from.free;
      place = from.place;
      uses = from.uses;
      team = from.team;
      due = from.due;
      dates = from.dates;
      visits = from.visits;
      assignments = from.assignments;
      details = new java.util.TreeMap<>(from.details);
      tags = from.tags;
      rulings = from.rulings;
      leastHeadCount = from.leastHeadCount;
      wants = from.wants;
      estimate = from.estimate;
      reminders = from.reminders;
    }

    /** Gives a record its number and the ref it is called by. */
    public Builder called(RecordId number, String value) {
      id = number;
      ref = value;
      return this;
    }

    public Builder kind(Kind value) {
      kind = value;
      return this;
    }

    /** Moves to a state; what it was before done is kept for the rules. */
    public Builder state(State value) {
      if (value == State.DONE) {
        stateBefore = state == State.DONE ? stateBefore : state;
      } else {
        stateBefore = value;
      }
      state = value;
      return this;
    }

    /** Sets both states as they were stored. */
    public Builder states(State value, State before) {
      state = value;
      stateBefore = before;
      return this;
    }

    public Builder started(boolean value) {
      started = value;
      return this;
    }

    public Builder cant(boolean value) {
      cant = value;
      return this;
    }

    public Builder isPrivate(boolean value) {
      isPrivate = value;
      return this;
    }

    public Builder personal(boolean value) {
      personal = value;
      return this;
    }

    public Builder free(boolean value) {
      free = value;
      return this;
    }

    public Builder place(Optional<PlaceId> value) {
      place = value;
      return this;
    }

    public Builder uses(List<PlaceId> value) {
      uses = value;
      return this;
    }

    public Builder team(Optional<TeamId> value) {
      team = value;
      return this;
    }

    public Builder due(Optional<Due> value) {
      due = value;
      return this;
    }

    public Builder dates(List<NamedDate> value) {
      dates = value;
      return this;
    }

    public Builder visits(List<Visit> value) {
      visits = value;
      return this;
    }

    public Builder assignments(List<Assignment> value) {
      assignments = value;
      return this;
    }

    public Builder detail(DetailKey key, DetailValue value) {
      if (value.text().isEmpty() && value.forWhom().isEmpty()) {
        details.remove(key);
      } else {
        details.put(key, value);
      }
      return this;
    }

    public Builder tags(Set<String> value) {
      tags = value;
      return this;
    }

    public Builder rulings(List<Ruling> value) {
      rulings = value;
      return this;
    }

    public Builder leastHeadCount(OptionalInt value) {
      leastHeadCount = value;
      return this;
    }

    public Builder wants(Wants value) {
      wants = value;
      return this;
    }

    public Builder estimate(Optional<Duration> value) {
      estimate = value;
      return this;
    }

    public Builder reminders(List<Duration> value) {
      reminders = value;
      return this;
    }

    public WorkRecord build() {
      return new WorkRecord(
          id,
          ref,
          kind,
          state,
          stateBefore,
          started,
          cant,
          isPrivate,
          personal,
          free,
          author,
          createdAt,
          place,
          uses,
          team,
          due,
          dates,
          visits,
          assignments,
          details,
          tags,
          rulings,
          leastHeadCount,
          wants,
          estimate,
          reminders);
    }
  }
}
