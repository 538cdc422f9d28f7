package mellowrota.server.deadlines;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Stream;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.Given;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.deadline.Reckoner;
import mellowrota.core.work.Due;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;

/** What the dates of sets rest on beside the sets, as it is at one moment; texts are read once. */
final class Ground {

  final World world;
  final Instant now;
  final List<Chains.KeptMethod> methods;
  private final Chains chains;
  private final Map<Long, Chains.Version> versions = new HashMap<>();
  private final Map<Long, Chains.Version> latest = new HashMap<>();
  private final Map<Long, Chain> read = new HashMap<>();

  private final Map<RecordId, WorkRecord> records = new HashMap<>();

  Ground(World world, Instant now, Chains chains) {
    this.world = world;
    this.now = now;
    this.chains = chains;
    methods = chains.methods();
  }

  /** Takes texts that sets go by, and the latest of their chains. */
  void take(Collection<Chains.Version> some) {
    for (Chains.Version one : some) {
      versions.put(one.id(), one);
      latest.merge(one.chain(), one, (a, b) -> a.no() > b.no() ? a : b);
    }
  }

  /** Takes records that sets are about. */
  void take(Stream<WorkRecord> some) {
    some.forEach(one -> records.put(one.id(), one));
  }

  /** A set with the place and the zone that its work has now (CHAINS 8, rule 7). */
  KeptSet present(KeptSet set) {
    return set.withTo(
        record(set.to().record())
            .map(work -> set.to().withPlace(work.place()).withZone(zone(work)))
            .orElse(set.to()));
  }

  /** That of the work's own times, else of its place, else the house's. */
  ZoneId zone(WorkRecord work) {
    return work.visits().stream()
        .map(Visit::when)
        .flatMap(Optional::stream)
        .filter(When.Timed.class::isInstance)
        .map(when -> ((When.Timed) when).start().getZone())
        .findFirst()
        .orElseGet(() -> zone(work.place()));
  }

  /** Of a place, else the house's. */
  ZoneId zone(Optional<PlaceId> place) {
    return place.flatMap(world.places()::find).flatMap(Place::zone).orElse(world.house().zone());
  }

  /** The text that its chain has now. */
  Chains.Version latest(long chain) {
    return latestOf(chain).findFirst().orElseThrow(Problem::notFound);
  }

  /** The same; nothing where there is no such chain. */
  Stream<Chains.Version> latestOf(long chain) {
    return Stream.ofNullable(latest.get(chain));
  }

  Chains.Version version(long id) {
    return versions.get(id);
  }

  Chain chain(long version) {
    return read.computeIfAbsent(version, id -> chains.read(world, methods, versions.get(id)));
  }

  Optional<WorkRecord> record(Optional<RecordId> id) {
    return id.map(records::get);
  }

  /** The date of the work that its key date follows, as it is now; else what was typed. */
  Optional<Due> keyDate(KeptSet.Belongs to, KeptSet.State state) {
    return to.follows().isPresent()
        ? record(to.record()).flatMap(to.follows().get()::date)
        : state.keyDate();
  }

  /** What a set's dates rest on, by the text it goes by. */
  Given given(KeptSet.Belongs to, KeptSet.State state) {
    Map<Name, Given.Fixed> fixed = new HashMap<>();
    for (KeptSet.Line line : state.lines()) {
      fixed.put(line.step(), fixed(state, line));
    }
    return new Given(
        state.keyDate(),
        chosen(state),
        state.answers(),
        fixed,
        methods(state.chainVersion()),
        world.places().workDays(to.place()),
        to.zone());
  }

  /** The chosen method by the name under which {@link #methods} has it. */
  private Optional<Name> chosen(KeptSet.State state) {
    return versions.get(state.chainVersion()).text().names().stream()
        .filter(one -> one.sort() == Meant.Sort.METHOD)
        .filter(one -> state.method().equals(OptionalLong.of(one.number())))
        .map(Meant::name)
        .findFirst()
        .or(() -> method(state.method()).map(Method::name));
  }

  Optional<Method> method(OptionalLong number) {
    return methods.stream()
        .filter(one -> number.isPresent() && one.number().equals(number))
        .map(Chains.KeptMethod::method)
        .findFirst();
  }

  /** Those of the house, those that a text names under the names it has for them. */
  private List<Method> methods(long version) {
    List<Method> found = new ArrayList<>();
    Set<Name> taken = new HashSet<>();
    for (Meant one : versions.get(version).text().names()) {
      if (one.sort() == Meant.Sort.METHOD) {
        taken.add(one.name());
        method(OptionalLong.of(one.number()))
            .map(method -> method.called(one.name()))
            .ifPresent(found::add);
      }
    }
    methods.stream()
        .map(Chains.KeptMethod::method)
        .filter(one -> !taken.contains(one.name()))
        .forEach(found::add);
    return found;
  }

  /** What somebody said of a step, of its deadline too: done, called off, or moved by itself. */
  private Given.Fixed fixed(KeptSet.State state, KeptSet.Line line) {
    WorkRecord record = record(line.record()).orElse(null);
    if (record == null) {
      return new Given.Fixed(line.leftOut(), Optional.empty(), Optional.empty());
    }
    boolean off = record.state() == State.CANCELLED;
    boolean leftOut = off && !state.isOff() && (line.leftOut() || line.given().isPresent());
    boolean moved =
        !off
            && !(record.due().isPresent()
                && line.given().isPresent()
                && record.due().get().isSame(line.given().get()));
    return new Given.Fixed(
        leftOut,
        record.isDone() ? record.due() : Optional.empty(),
        line.byHand() || moved ? record.due() : Optional.empty());
  }

  /** A set as it stands: each date the one that its deadline has. */
  List<Reckoned> stands(KeptSet.Belongs to, KeptSet.State state) {
    Map<Name, KeptSet.Line> lines = state.byStep();
    return Reckoner.of(chain(state.chainVersion()), given(to, state)).stream()
        .map(
            one ->
                one.standingAt(
                    Optional.ofNullable(lines.get(one.step().name()))
                        .flatMap(line -> record(line.record()))
                        .filter(record -> record.state() != State.CANCELLED)
                        .flatMap(WorkRecord::due)))
        .toList();
  }
}
