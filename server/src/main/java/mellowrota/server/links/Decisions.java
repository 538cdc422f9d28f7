package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.rule.Landing;
import mellowrota.core.sight.Wording;
import mellowrota.core.sync.Part;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.ical.CopyText;
import mellowrota.server.links.store.Changes;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.OpenableRecords;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What was changed in outside calendars, for those who may know of it: whoever's calendar it is,
 * and the office of the work. A proposal is taken, or put back.
 */
@Service
@RequiredArgsConstructor
class Decisions {

  private static final int MOST = 500;

  private final OpenableRecords opens;
  private final CopyStore copies;
  private final Changes changes;
  private final RemoteEdits remoteEdits;
  private final RecordStore records;
  private final RecordAccess access;
  private final Worlds worlds;
  private final TransactionTemplate transaction;

  /** A change as it is kept. */
  record Row(
      long id,
      long outlet,
      long entry,
      Instant at,
      String part,
      String sent,
      String theirs,
      String ours,
      Changes.State state,
      boolean stays,
      String words,
      RecordId record,
      int visit,
      CalendarId calendar,
      Family family,
      Optional<PersonId> person,
      String outletName,
      String account) {}

  /** A change before one who may know of it. */
  record Told(Row row, RecordAccess.Standing standing, boolean mine, boolean open) {}

  private static final String COLUMNS =
      """
      select o.id, o.link_calendar, o.entry, o.at, o.part, o.sent, o.theirs, o.ours, o.state,
        o.stays, o.words, e.record, e.visit, e.calendar, e.family, k.person, l.name, k.account
      from outside_change o join entry e on e.id = o.entry
        join link_calendar l on l.id = o.link_calendar join link k on k.id = l.link
      """;

  private record Columns(
      long id,
      long outlet,
      long entry,
      Instant at,
      String part,
      String sent,
      String theirs,
      String ours,
      String state,
      boolean stays,
      String words,
      long record,
      int visit,
      long calendar,
      String family,
      Long person,
      String outletName,
      String account) {

    Row row() {
      return new Row(
          id,
          outlet,
          entry,
          at,
          part,
          sent,
          theirs,
          ours,
          Changes.State.valueOf(state),
          stays,
          words,
          RecordId.of(record),
          visit,
          CalendarId.of(calendar),
          Family.valueOf(family),
          Optional.ofNullable(person).map(PersonId::of),
          outletName,
          account);
    }
  }

  /** The newest of them. */
  List<Told> of(
      World world, Person asker, Optional<Changes.State> state, Optional<RecordId> record) {
    List<Row> rows =
        opens
            .query(
                Columns.class,
                COLUMNS
                    + """
                     where (:state = '' or o.state = :state)
                      and (:record = 0 or e.record = :record)
                      and (k.person = :me or
                    """
                    + OpenableRecords.OFFICE_ON_ENTRY
                    + ") order by o.id desc limit :most",
                world,
                asker)
            .setParameter("state", state.map(Enum::name).orElse(""))
            .setParameter("record", record.map(RecordId::value).orElse(0L))
            .setParameter("most", MOST)
            .getResultList()
            .stream()
            .map(Columns::row)
            .toList();
    return told(world, asker, rows);
  }

  private List<Told> told(World world, Person asker, List<Row> rows) {
    Map<RecordId, WorkRecord> loaded = new HashMap<>();
    records
        .load(rows.stream().map(Row::record).distinct().toList(), false)
        .forEach(one -> loaded.put(one.id(), one));
    List<Told> found = new ArrayList<>();
    for (Row row : rows) {
      WorkRecord record = loaded.get(row.record());
      RecordAccess.Standing standing = access.standing(world, asker, record);
      boolean mine = row.person().filter(asker.id()::equals).isPresent();
      if (mine || standing.isOffice() && standing.opens()) {
        found.add(new Told(row, standing, mine, mine || sees(world, standing, row)));
      }
    }
    return found;
  }

  /** Whether the asker may see every detail that the changed part is made of. */
  private static boolean sees(World world, RecordAccess.Standing standing, Row row) {
    if (row.part().equals("DELETED") || row.part().equals("REPEATS")) {
      return standing.sees(DetailKey.TIMES);
    }
    Part part = Part.valueOf(row.part());
    if (part == Part.TIMES) {
      return standing.sees(DetailKey.TIMES);
    }
    if (part == Part.NOTE) {
      return standing.sees(DetailKey.NOTES);
    }
    Function<Wording, mellowrota.core.sight.Pattern> pattern =
        part == Part.TITLE ? Wording::title : part == Part.PLACE ? Wording::place : Wording::text;
    Optional<Entry> entry = entry(world, standing.record(), row);
    Set<DetailKey> asked =
        entry
            .map(one -> world.sight().asked(standing.record(), one, pattern))
            .orElseGet(() -> world.sight().details(standing.record()).collect(Collectors.toSet()));
    return asked.stream().allMatch(standing::sees);
  }

  private static Optional<Entry> entry(World world, WorkRecord record, Row row) {
    return world.router().land(record).stream()
        .map(Landing.Lands::entry)
        .filter(
            one ->
                one.key().calendar().equals(row.calendar())
                    && one.key().visit() == row.visit()
                    && one.key().family() == row.family())
        .findFirst();
  }

  private Told open(World world, Person asker, long id) {
    List<Row> rows =
        opens
            .query(Columns.class, COLUMNS + " where o.id = :id", world, asker)
            .setParameter("id", id)
            .getResultList()
            .stream()
            .map(Columns::row)
            .toList();
    return told(world, asker, rows).stream().findFirst().orElseThrow(Problem::notFound);
  }

  private static Problem decided() {
    return Problem.of(409, "decided-already", say("links.this-was-already-decided"));
  }

  /** Takes it into the record, as an act of whoever says so. */
  void take(PersonId asker, long id) {
    transaction.executeWithoutResult(status -> takeOne(asker, id));
  }

  private void takeOne(PersonId asker, long id) {
    World world = worlds.now();
    Told told = open(world, world.person(asker), id);
    Row row = told.row();
    if (row.state() != Changes.State.PROPOSED) {
      throw decided();
    }
    CopyStore.Copy copy = copies.find(row.outlet(), row.entry()).orElseThrow();
    if (row.part().equals("DELETED")) {
      copies.leaveOff(copy);
      settle(
          asker,
          row,
          Changes.State.TAKEN,
          false,
          say("links.it-stays-removed-there"),
          Optional.empty());
      return;
    }
    String key = "outside-change:" + id;
    Optional<Long> act = taken(world, asker, told, copy, key);
    boolean note = row.part().equals(Part.NOTE.name());
    settle(asker, row, Changes.State.TAKEN, note && row.stays(), "", act);
    copies.look(row.outlet(), row.entry());
  }

  private Optional<Long> taken(
      World world, PersonId asker, Told told, CopyStore.Copy copy, String key) {
    Row row = told.row();
    switch (Part.valueOf(row.part())) {
      case TIMES -> {
        Changes.Texts texts = changes.texts(row.id());
        EntryTimes sent = times(texts.ours(), copy, world);
        EntryTimes theirs = times(texts.theirs(), copy, world);
        return Optional.of(
            remoteEdits
                .move(asker, copy, sent, theirs, key)
                .orElseThrow(
                    () -> Problem.of(409, "not-its-own-span", say("links.the-time-that-was"))));
      }
      case TITLE -> {
        DetailValue title = told.standing().record().details().get(DetailKey.TITLE);
        boolean plain = title != null && title.text().equals(row.ours());
        return Optional.of(
            plain
                ? remoteEdits.title(asker, copy, row.theirs(), key)
                : remoteEdits.note(asker, copy, say("links.title-there", row.theirs()), key));
      }
      case PLACE -> {
        return Optional.of(
            remoteEdits.note(asker, copy, say("links.place-there", row.theirs()), key));
      }
      default -> {
        return Optional.of(remoteEdits.note(asker, copy, row.theirs(), key));
      }
    }
  }

  private static EntryTimes times(String text, CopyStore.Copy copy, World world) {
    return CopyText.read(text, copy.uid(), world.house().zone())
        .orElseThrow(() -> Problem.of(409, "unreadable", say("links.what-was-changed-there")))
        .content()
        .times();
  }

  /** Writes ours there again. */
  void putBack(PersonId asker, long id) {
    transaction.executeWithoutResult(status -> putBackOne(asker, id));
  }

  private void putBackOne(PersonId asker, long id) {
    World world = worlds.now();
    Told told = open(world, world.person(asker), id);
    Row row = told.row();
    if (row.state() != Changes.State.PROPOSED) {
      throw decided();
    }
    settle(asker, row, Changes.State.PUT_BACK, false, "", Optional.empty());
    CopyStore.Copy copy = copies.find(row.outlet(), row.entry()).orElseThrow();
    if (row.part().equals("DELETED") && copy.stands().isEmpty()) {
      copies.anew(copy);
    } else {
      copies.look(row.outlet(), row.entry());
    }
  }

  private void settle(
      PersonId asker,
      Row row,
      Changes.State state,
      boolean stays,
      String words,
      Optional<Long> act) {
    if (!changes.settle(row.id(), asker, state, stays, words, act)) {
      throw decided();
    }
  }
}
