package mellowrota.server.today;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Place;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.ActWatcher;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.today.store.LostWorkStore;
import org.springframework.stereotype.Component;

/**
 * Keeps who loses work by an act, with the day and place as they might know them, until they have
 * seen it or have the work again. It refuses nothing.
 */
@Component
@RequiredArgsConstructor
class LostWork implements ActWatcher {

  private final Worlds worlds;
  private final LostWorkStore store;

  @Override
  public void watch(Act act) {
    for (WorkRecord record : act.records().values()) {
      WorkRecord was = act.before(record.id()).orElse(record);
      if (was.state() == record.state() && was.assignments().equals(record.assignments())) {
        continue;
      }
      World world = worlds.locked(act.worldVersion());
      Set<PersonId> had = on(world, was);
      Set<PersonId> has = on(world, record);
      Set<PersonId> gone = new HashSet<>(had);
      gone.removeAll(has);
      gone.remove(act.actor());
      has.removeAll(had);
      if (!has.isEmpty()) {
        store.forget(record.id(), has);
      }
      boolean cancelled = record.state() == State.CANCELLED;
      gone.forEach(
          person ->
              asKnown(world, person, was, act.at(), cancelled)
                  .ifPresent(one -> store.lost(person, act.id(), act.at(), one)));
    }
  }

  /** Whoever might not see its times is not told by their silence that it is over or cancelled. */
  private static Optional<LostWorkStore.Lost> asKnown(
      World world, PersonId person, WorkRecord was, Instant now, boolean cancelled) {
    RecordAccess.Standing standing = RecordAccess.standing(world, world.person(person), was, false);
    boolean seesTimes = standing.sees(DetailKey.TIMES);
    Optional<LocalDate> next = next(was, now, world.house().zone());
    if (seesTimes && next.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        new LostWorkStore.Lost(
            was.id().value(),
            next.filter(day -> seesTimes),
            was.place()
                .filter(place -> standing.sees(DetailKey.PLACE))
                .flatMap(world.places()::find)
                .map(Place::name),
            cancelled && seesTimes));
  }

  /** Whose work it is, as long as it stands. */
  private static Set<PersonId> on(World world, WorkRecord record) {
    Set<PersonId> found = new HashSet<>();
    if (record.state() == State.DRAFT || record.state() == State.CANCELLED) {
      return found;
    }
    for (Assignment one : record.assignments()) {
      if (one.role().equals(RoleId.INFORMED)) {
        continue;
      }
      if (one.holder() instanceof Holder.OnePerson person) {
        found.add(person.person());
      } else if (one.holder() instanceof Holder.WholeTeam team) {
        found.addAll(world.crew().members(team.team()).keySet());
      }
    }
    return found;
  }

  /** The day on which it next begins or is due; empty: all of it is over. */
  private static Optional<LocalDate> next(WorkRecord record, Instant now, ZoneId zone) {
    return Stream.concat(
            record.visits().stream()
                .flatMap(visit -> visit.when().stream())
                .map(when -> when.in(zone))
                .filter(span -> span.end().isAfter(now))
                .map(span -> LocalDate.ofInstant(span.start(), zone)),
            record
                .due()
                .filter(due -> due.overdueFrom(zone).isAfter(now))
                .map(due -> due.day(zone))
                .stream())
        .min(Comparator.naturalOrder());
  }
}
