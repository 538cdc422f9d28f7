package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.ical.CopyText;
import mellowrota.server.links.store.Changes;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.links.store.WaitingCopies;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.OpenableRecords;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Copies and what was changed in them, over HTTP. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class CopiesController {

  private static final int MOST = 500;

  private final Decisions decisions;
  private final RecordStore records;
  private final RecordAccess access;
  private final Worlds worlds;
  private final OutsideBusy busy;
  private final WorkTimes times;
  private final HouseStore house;
  private final OpenableRecords opens;
  private final WaitingCopies waiting;
  private final LinkStore links;
  private final Clock clock;
  private final TransactionTemplate transaction;

  /** How a copy is, as the API says it. */
  enum CopyState {
    WAITS,
    SENDING,
    SENT,
    REFUSED,
    OFF,
    ASKED_OFF,
    TAKEN_OFF_THERE,
    /** Somebody changed it there, and nobody has decided yet. */
    CHANGED_THERE
  }

  @Schema(name = "Copy")
  record CopyView(
      long link,
      String owner,
      String there,
      long calendar,
      String calendarName,
      long record,
      String title,
      CopyState state,
      @Schema(description = "Seconds until it is sent, or tried again") @Nullable Long dueIn,
      @Schema(description = "When it became pending") @Nullable Instant openSince,
      @Nullable Instant sentAt,
      @Schema(description = "Why it was not sent, as a code") @Nullable String fault,
      @Nullable String faultWords,
      @Schema(
              description =
                  "What can still be read there although it should be removed, as far as the caller may see it")
          List<String> shows,
      @Schema(
              description =
                  "Details hidden from the caller that may be readable there too, filled or empty;"
                      + " changing them is safe")
          List<String> mayShow) {}

  @Schema(name = "OutsideChange")
  record ChangeView(
      long id,
      Instant at,
      String owner,
      String there,
      long record,
      String title,
      @Schema(
              description = "TIMES, TITLE, PLACE, TEXT, NOTE, DELETED or REPEATS",
              allowableValues = {"TIMES", "TITLE", "PLACE", "TEXT", "NOTE", "DELETED", "REPEATS"})
          String part,
      String sent,
      String theirs,
      String ours,
      Changes.State state,
      @Schema(description = "It is still there") boolean stays,
      String words) {}

  @GetMapping("/copies")
  @Operation(
      summary =
          "Copies of the caller’s own calendar and of work they coordinate; pending ones first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CopyView> copies(Asker asker, @RequestParam(required = false) Long record) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    List<Row> rows = rows(world, record, me);
    Map<RecordId, WorkRecord> loaded = new HashMap<>();
    records
        .load(rows.stream().map(row -> RecordId.of(row.record())).distinct().toList(), false)
        .forEach(one -> loaded.put(one.id(), one));
    List<CopyView> found = new ArrayList<>();
    for (Row row : rows) {
      RecordAccess.Standing standing =
          access.standing(world, me, loaded.get(RecordId.of(row.record())));
      boolean mine = row.person() != 0 && row.person() == me.id().value();
      if (mine || standing.isOffice() && standing.opens()) {
        found.add(view(world, standing, row, mine || row.person() == 0));
      }
    }
    return found;
  }

  private record Row(
      long link,
      long person,
      String name,
      long calendar,
      long record,
      String state,
      Long dueIn,
      Instant openSince,
      Instant sentAt,
      String fault,
      String faultWords,
      boolean changed,
      String uid,
      String stillStands) {}

  private List<Row> rows(World world, Long record, Person me) {
    Instant now = clock.instant();
    return opens
        .query(
            Row.class,
            """
            select k.id, coalesce(k.person, 0), l.name, e.calendar, e.record, c.state,
              cast(extract(epoch from c.due_at - cast(:now as timestamptz)) as bigint),
              c.open_since, c.sent_at,
              coalesce(c.fault, k.fault), coalesce(c.fault_words, k.fault_words),
              exists (select 1 from outside_change o where o.link_calendar = c.link_calendar
                and o.entry = c.entry and o.state = 'PROPOSED'),
              e.uid, case when c.state = 'ASKED_OFF' then c.stands end
            from copy c join link_calendar l on l.id = c.link_calendar join link k on k.id = l.link
              join entry e on e.id = c.entry
            where k.ended_at is null and c.state <> 'OFF'
              and (:record = 0 or e.record = :record)
              and (k.person = :me or
            """
                + OpenableRecords.OFFICE_ON_ENTRY
                + ") order by c.due_at is null, c.due_at, c.sent_at desc, c.entry limit :most",
            world,
            me)
        .setParameter("now", now)
        .setParameter("record", record == null ? 0 : record)
        .setParameter("most", MOST)
        .getResultList();
  }

  private static CopyView view(
      World world, RecordAccess.Standing standing, Row row, boolean mayKnowWhere) {
    boolean open = row.dueIn() != null;
    return new CopyView(
        row.link(),
        owner(world, row.person()),
        // How an account names its calendars is its owner's affair.
        mayKnowWhere ? row.name() : "",
        row.calendar(),
        world.calendars().find(CalendarId.of(row.calendar())).map(Calendar::name).orElse(""),
        row.record(),
        title(standing),
        row.changed() ? CopyState.CHANGED_THERE : CopyState.valueOf(row.state()),
        open ? Math.max(0, row.dueIn()) : null,
        row.openSince(),
        row.sentAt(),
        open ? row.fault() : null,
        open && row.fault() != null
            ? mayKnowWhere ? row.faultWords() : OutsideFault.Kind.valueOf(row.fault()).inGeneral()
            : null,
        shows(world, standing, row),
        mayShow(world, standing, row));
  }

  private static List<String> mayShow(World world, RecordAccess.Standing standing, Row row) {
    if (row.stillStands() == null || !standing.isOffice()) {
      return List.of();
    }
    return world.details().of(standing.record().kind()).stream()
        .map(DetailDefinition::key)
        .filter(key -> !standing.sees(key))
        .map(DetailKey::name)
        .sorted()
        .toList();
  }

  /** Names of details whose value is read in what still stands there. */
  private static List<String> shows(World world, RecordAccess.Standing standing, Row row) {
    if (row.stillStands() == null || !standing.opens()) {
      return List.of();
    }
    return CopyText.read(row.stillStands(), row.uid(), world.house().zone())
        .map(CopyText.Read::content)
        .map(
            there -> {
              String all = there.title() + "\n" + there.place() + "\n" + there.text();
              List<String> found = new ArrayList<>();
              standing
                  .record()
                  .details()
                  .forEach(
                      (key, value) -> {
                        boolean said = !value.text().isBlank() && all.contains(value.text());
                        if (said && standing.sees(key)) {
                          found.add(key.name());
                        }
                      });
              return found.stream().sorted().toList();
            })
        .orElse(List.of());
  }

  private static String owner(World world, long person) {
    return person == 0 ? "The house" : ReaderWords.name(world, PersonId.of(person));
  }

  static String title(RecordAccess.Standing standing) {
    if (standing.sees(DetailKey.TITLE)) {
      return Optional.ofNullable(standing.record().details().get(DetailKey.TITLE))
          .map(mellowrota.core.work.DetailValue::text)
          .orElse(standing.record().ref());
    }
    return Sight.BARE_TITLE;
  }

  @Schema(name = "CopiesWaiting")
  record WaitingView(
      @Schema(description = "Records whose copies will be sent") long changes,
      long copies,
      @Schema(description = "Calendars they go to") long calendars,
      @Schema(description = "Seconds until the first is sent; absent if none is waiting")
          @Nullable Long goesOutIn,
      @Schema(description = "People whose linked calendars could not be read lately")
          List<String> unknownBusy) {}

  @GetMapping("/copies/waiting")
  @Operation(summary = "Copies about to be sent, and people whose busy time is unknown")
  @Transactional(readOnly = true)
  public WaitingView waiting(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Set<PersonId> theirs = answeredForBy(world, me);
    WaitingCopies.Waiting counts =
        waiting.waiting(me.isCoordinator() ? Optional.empty() : Optional.of(theirs));
    List<String> unknown =
        busy.ages(theirs).stream()
            .filter(age -> age.trust() == OutsideBusy.Trust.UNKNOWN)
            .map(age -> ReaderWords.name(world, age.person()))
            .toList();
    return new WaitingView(
        counts.changes(),
        counts.copies(),
        counts.calendars(),
        counts.goesOutIn().orElse(null),
        unknown);
  }

  /** The asker, and those whose calendars they answer for. */
  private Set<PersonId> answeredForBy(World world, Person me) {
    return times.answeredForBy(me, world.crew().people().stream().map(Person::id).toList());
  }

  @PostMapping("/copies/send-now")
  @Operation(
      summary =
          "Send now what is waiting for the caller and people they coordinate, or for one record")
  ResponseEntity<Void> sendNow(Asker asker, @RequestParam(required = false) Long record) {
    transaction.executeWithoutResult(
        status -> {
          World world = worlds.now();
          Person me = world.person(asker.person());
          boolean office = me.isCoordinator();
          waiting.hurry(
              Optional.ofNullable(record).map(RecordId::of),
              office ? Optional.empty() : Optional.of(answeredForBy(world, me)));
        });
    return ResponseEntity.noContent().build();
  }

  @Schema(name = "CopiesHeld")
  record HeldView(
      @Schema(
              description =
                  "Nothing is sent: the organisation was restored from a backup and nobody has confirmed yet")
          boolean held,
      long open) {}

  @GetMapping("/copies/held")
  @Operation(summary = "Whether copies are held back after a restore, and how many are waiting")
  @Transactional(readOnly = true)
  public HeldView held(Asker asker) {
    boolean office = worlds.now().person(asker.person()).isCoordinator();
    long open = office ? waiting.open() : 0;
    return new HeldView(house.copying().held(), open);
  }

  @PostMapping("/copies/go-on")
  @Operation(summary = "Start sending copies again after a restore")
  ResponseEntity<Void> goOn(Asker asker) {
    if (!worlds.now().person(asker.person()).isCoordinator()) {
      throw Problem.forbidden(say("links.only-coordinators-can-start"));
    }
    transaction.executeWithoutResult(
        status -> {
          // What stands there may be newer than what was restored: all of it is looked at first.
          waiting.lookAtAll();
          links.readAllAfresh();
          house.letCopiesGo();
        });
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/outside-changes")
  @Operation(summary = "Changes made in linked calendars, newest first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<ChangeView> changes(
      Asker asker,
      @RequestParam(required = false) Changes.State state,
      @RequestParam(required = false) Long record) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    return decisions
        .of(world, me, Optional.ofNullable(state), Optional.ofNullable(record).map(RecordId::of))
        .stream()
        .map(told -> view(world, told))
        .toList();
  }

  private static ChangeView view(World world, Decisions.Told told) {
    Decisions.Row row = told.row();
    return new ChangeView(
        row.id(),
        row.at(),
        owner(world, row.person().map(PersonId::value).orElse(0L)),
        told.mine() || row.person().isEmpty() ? row.outletName() : "",
        row.record().value(),
        title(told.standing()),
        row.part(),
        told.open() ? row.sent() : Sight.COVERED,
        told.open() ? row.theirs() : Sight.COVERED,
        told.open() ? row.ours() : Sight.COVERED,
        row.state(),
        row.stays(),
        row.words());
  }

  @PostMapping("/outside-changes/{id}/take")
  @Operation(summary = "Accept the change into the record")
  ResponseEntity<Void> take(Asker asker, @PathVariable long id) {
    decisions.take(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/outside-changes/{id}/put-back")
  @Operation(summary = "Restore our entry there")
  ResponseEntity<Void> putBack(Asker asker, @PathVariable long id) {
    decisions.putBack(asker.person(), id);
    return ResponseEntity.noContent().build();
  }
}
