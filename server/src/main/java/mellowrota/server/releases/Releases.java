package mellowrota.server.releases;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Projector;
import mellowrota.core.project.Release;
import mellowrota.core.sight.Face;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.calendars.ReleasedText;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.calendars.store.ReleaseStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.OpenableRecords;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.releases.store.ApprovalStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;

/** Lists what waits, says yes to it, and takes a yes back. */
@Service
@RequiredArgsConstructor
class Releases implements Undoes {

  /** The oldest of them are told; the rest when these are done. */
  static final int MOST = 500;

  private final OpenableRecords opens;
  private final Entries entries;
  private final ApprovalStore yeses;
  private final Acts acts;
  private final Worlds worlds;
  private final RecordStore records;
  private final RecordAccess access;
  private final ReleaseStore store;
  private final ReleasedText texts;

  /** An entry as it is kept. */
  private record Row(long id, EntryKey key, Instant since) {}

  /**
   * What waits.
   *
   * @param as tells what a yes would release from what it would otherwise
   * @param now what it would then say
   */
  record Waiting(
      long entry,
      Instant since,
      RecordAccess.Standing standing,
      Projector.Projected projected,
      Projector.Projected now,
      String as) {}

  /** What waits on records on which this person has the office's rights, the oldest first. */
  List<Waiting> before(World world, Person person) {
    List<Row> rows =
        entries(
            opens
                .query(
                    Long.class,
                    """
                    select e.id from entry e where e.asks_since is not null and
                    """
                        + OpenableRecords.OFFICE_ON_ENTRY
                        + " order by e.asks_since, e.id limit :most",
                    world,
                    person)
                .setParameter("most", MOST)
                .getResultList());
    rows.sort(Comparator.comparing(Row::since).thenComparing(Row::id));
    return waiting(world, person, rows, load(rows, false));
  }

  private Map<RecordId, WorkRecord> load(List<Row> rows, boolean locked) {
    Set<RecordId> ids = new TreeSet<>();
    rows.forEach(row -> ids.add(row.key().record()));
    return records.load(List.copyOf(ids), locked).stream()
        .collect(Collectors.toMap(WorkRecord::id, Function.identity()));
  }

  private List<Waiting> waiting(
      World world, Person person, List<Row> rows, Map<RecordId, WorkRecord> loaded) {
    Release.Known known = store.of(world, loaded.keySet());
    Map<EntryKey, Projector.Projected> stands = new HashMap<>();
    Map<EntryKey, Projector.Projected> would = new HashMap<>();
    Map<RecordId, RecordAccess.Standing> standings = new HashMap<>();
    for (WorkRecord record : loaded.values()) {
      standings.put(record.id(), access.standing(world, person, record));
      world.projector().project(record, known).forEach(one -> stands.put(one.entry().key(), one));
      world.projector().project(record).forEach(one -> would.put(one.entry().key(), one));
    }
    List<Waiting> found = new ArrayList<>();
    for (Row row : rows) {
      RecordAccess.Standing standing = standings.get(row.key().record());
      Projector.Projected one = stands.get(row.key());
      if (standing.isOffice() && one != null && one.asks()) {
        Projector.Projected now = would.get(row.key());
        String as = Face.digest(texts.write(now.keep().orElseThrow()));
        found.add(new Waiting(row.id(), row.since(), standing, one, now, as));
      }
    }
    return found;
  }

  /** A yes to one entry, as it was looked at. */
  record Yes(long entry, String as) {}

  /** Says yes to all of these, or to none where one is not what was looked at. */
  Acts.Done release(PersonId asker, Optional<String> key, String body, List<Yes> all) {
    return acts.run(
        Acts.Wanted.by(asker, "release.yes", key, body),
        act -> {
          World world = worlds.locked(act.worldVersion());
          List<Row> rows = entries(all.stream().map(Yes::entry).toList());
          Map<Long, Waiting> waiting = new HashMap<>();
          waiting(world, world.person(asker), rows, load(rows, true))
              .forEach(one -> waiting.put(one.entry(), one));
          for (Yes yes : all) {
            Waiting one = waiting.get(yes.entry());
            if (one == null || !one.as().equals(yes.as())) {
              throw changed();
            }
            let(act, one);
          }
          return "";
        });
  }

  private List<Row> entries(List<Long> ids) {
    return entries.find(ids).stream()
        .map(one -> new Row(one.id(), one.key(), one.asksSince()))
        .collect(Collectors.toCollection(ArrayList::new));
  }

  private static Problem changed() {
    return Problem.of(409, "changed-meanwhile", say("releases.one-of-these-has"));
  }

  private void let(Act act, Waiting one) {
    act.release(one.projected().entry().key(), new Release.AsItStands());
    touch(act, one.standing());
    keep(
        act,
        one.entry(),
        one.projected().keep().map(texts::write),
        one.now().keep().map(texts::write));
  }

  private void keep(Act act, long entry, Optional<String> before, Optional<String> after) {
    yeses.add(act.id(), new ApprovalStore.Yes(entry, before, after));
  }

  private static void touch(Act act, RecordAccess.Standing standing) {
    WorkRecord record = standing.record();
    act.touch(record, standing.world().details().forWhom(record, DetailKey.TIMES).bits());
  }

  @Override
  public boolean knows(long act) {
    return !yeses.of(act).isEmpty();
  }

  @Override
  public boolean mayUndo(PersonId asker, long act) {
    World world = worlds.now();
    List<Row> rows = entries(yeses.of(act).stream().map(ApprovalStore.Yes::entry).toList());
    return access.standings(world, world.person(asker), load(rows, false).values()).stream()
        .allMatch(RecordAccess.Standing::isOffice);
  }

  /** Readers get again what they had before, as far as nobody said yes to something since. */
  @Override
  public Acts.Done undo(PersonId asker, long undone, Optional<String> key) {
    return acts.run(
        Acts.Wanted.by(asker, "release.undo", key, Long.toString(undone)).undoing(undone),
        act -> {
          World world = worlds.locked(act.worldVersion());
          List<ApprovalStore.Yes> of = yeses.of(undone);
          Map<Long, Entries.Known> there =
              entries.byId(of.stream().map(ApprovalStore.Yes::entry).toList());
          List<ApprovalStore.Yes> kept =
              of.stream()
                  .filter(
                      one ->
                          Objects.equals(
                              one.after().orElse(null), there.get(one.entry()).released()))
                  .toList();
          if (kept.isEmpty()) {
            throw Problem.of(409, "changed-since", say("releases.what-you-approved-has"));
          }
          List<Row> rows = entries(kept.stream().map(ApprovalStore.Yes::entry).toList());
          Map<Long, EntryKey> keys = new HashMap<>();
          rows.forEach(row -> keys.put(row.id(), row.key()));
          Set<RecordId> mine = new HashSet<>();
          for (WorkRecord record : load(rows, true).values()) {
            RecordAccess.Standing standing = access.standing(world, world.person(asker), record);
            if (!standing.isOffice()) {
              throw Problem.notFound();
            }
            mine.add(record.id());
            touch(act, standing);
          }
          for (ApprovalStore.Yes one : kept) {
            EntryKey entry = keys.get(one.entry());
            if (mine.contains(entry.record())) {
              act.release(
                  entry,
                  one.before()
                      .<Release>map(text -> new Release.Last(texts.read(entry, "", text)))
                      .orElseGet(Release.Never::new));
              keep(act, one.entry(), one.after(), one.before());
            }
          }
          return "";
        });
  }
}
