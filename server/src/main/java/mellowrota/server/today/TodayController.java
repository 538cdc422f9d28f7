package mellowrota.server.today;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.crew.AccountStates;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.Histories;
import mellowrota.server.records.HistoryView;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordView;
import mellowrota.server.records.RecordViews;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.today.store.LostWorkStore;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What wants somebody today, over HTTP. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class TodayController {

  private static final int MOST_SHOWN = 100;
  private static final int DAYS_OF_LEAVE = 366;
  private static final Duration SOON = Duration.ofHours(48);

  private final Worlds worlds;
  private final TodayWork work;
  private final RecordViews views;
  private final Histories histories;
  private final UnseenChanges unseen;
  private final LostWorkStore lost;
  private final AccountStates accounts;
  private final WorkTimes times;
  private final Clock clock;

  /**
   * What wants the asker; a record stands in the first list that it belongs to.
   *
   * @param cant somebody on it said that it cannot be done
   * @param nobody work of the next two days with nobody on it
   * @param nobodyLater the same of the two weeks
   * @param leave asked for by those whom the asker answers for, and not over
   * @param nowhere work that is on no calendar and is no draft
   * @param unseen may tell of a record that stands in another list
   * @param ahead work of the next two weeks, soonest first
   */
  @Schema(name = "Today")
  record TodayView(
      String today,
      Instant at,
      List<RecordView> cant,
      List<RecordView> overdue,
      List<RecordView> dueToday,
      List<RecordView> nobody,
      List<RecordView> nobodyLater,
      List<LeaveView> leave,
      List<RecordView> nowhere,
      List<UnseenView> unseen,
      List<RecordView> ahead) {}

  /** Days away that wait for a yes. */
  @Schema(name = "LeaveRequest")
  record LeaveView(
      long id,
      long person,
      String name,
      LocalDate first,
      LocalDate last,
      @Schema(description = "Of some hours of that day, as 13:00") @Nullable String from,
      @Nullable String until) {}

  /** The last change of a record that some of those on it have not marked as seen. */
  @Schema(name = "UnseenChange")
  record UnseenView(RecordView record, List<UnseenByView> people, @Nullable HistoryView change) {}

  /** Who has not marked it; without an account somebody has to tell them. */
  @Schema(name = "UnseenBy")
  record UnseenByView(long person, String name, boolean hasAccount) {}

  /** The asker's own work around today, and what of it changed. */
  @Schema(name = "MyDay")
  record MyDayView(
      String today,
      Instant at,
      String zone,
      List<RecordView> work,
      List<UnseenView> changed,
      List<LostView> lost) {}

  /** Work that is no longer the caller's and of which they have not said that they know. */
  @Schema(name = "LostWork")
  record LostView(
      long record,
      @Schema(description = "On which it was next, where the caller might know")
          @Nullable LocalDate day,
      @Schema(description = "Where, likewise") @Nullable String place,
      boolean cancelled) {}

  /** How somebody without an account was told. */
  enum How {
    PHONE,
    IN_PERSON,
    MESSAGE,
    PAPER
  }

  /** Whom a coordinator told of what was changed, and how. */
  @Schema(name = "ToldOf")
  record ToldWish(long person, How how) {}

  /** That somebody was told of a record’s last change. */
  @Schema(name = "ToldChange")
  record ToldView(String name, String by, How how, Instant at) {}

  @GetMapping("/today")
  @Operation(
      summary =
          "What needs attention: overdue, due, unassigned, leave, on no calendar, not acknowledged")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  TodayView today(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Instant now = clock.instant();
    LocalDate today = world.day();
    Map<Part, List<RecordView>> parts = new EnumMap<>(Part.class);
    List<RecordView> ahead = new ArrayList<>();
    for (RecordAccess.Standing one : work.wanting(world, me)) {
      RecordView view = views.view(one).orElseThrow();
      if (!one.sees(DetailKey.TIMES)) {
        continue;
      }
      WorkRecord record = one.record();
      When when = When.of(record, now, today, world.house().zone());
      part(one, when, now.plus(SOON), world.house().zone())
          .ifPresent(part -> parts.computeIfAbsent(part, key -> new ArrayList<>()).add(view));
      if (when == When.AHEAD || when == When.DUE_TODAY) {
        ahead.add(view);
      }
    }
    Set<Long> told = new HashSet<>();
    parts.values().forEach(list -> list.forEach(view -> told.add(view.id())));
    List<RecordView> nowhere =
        work.nowhere(world, me).stream()
            .flatMap(one -> views.view(one).stream())
            .filter(view -> !told.contains(view.id()))
            .toList();
    return new TodayView(
        today.toString(),
        now,
        first(parts, Part.CANT),
        first(parts, Part.OVERDUE),
        first(parts, Part.DUE_TODAY),
        first(parts, Part.NOBODY),
        first(parts, Part.NOBODY_LATER),
        leave(world, me, today),
        first(nowhere),
        changes(world, me, unseen.of(world, me, false, now)),
        first(ahead));
  }

  /** The lists of a record, the most pressing first. */
  private enum Part {
    CANT,
    OVERDUE,
    DUE_TODAY,
    NOBODY,
    NOBODY_LATER
  }

  private static Optional<Part> part(
      RecordAccess.Standing standing, When when, Instant soon, ZoneId zone) {
    WorkRecord record = standing.record();
    if (record.cant()) {
      return Optional.of(Part.CANT);
    }
    if (when != When.AHEAD) {
      return Optional.of(when == When.OVERDUE ? Part.OVERDUE : Part.DUE_TODAY);
    }
    if (!standing.sees(DetailKey.PEOPLE) || !hasNobody(record)) {
      return Optional.empty();
    }
    return Optional.of(When.begins(record, zone, soon) ? Part.NOBODY : Part.NOBODY_LATER);
  }

  /** What the asker may agree to. */
  private List<LeaveView> leave(World world, Person me, LocalDate today) {
    List<WorkTimes.Away> asked =
        times.away(today, today.plusDays(DAYS_OF_LEAVE)).stream()
            .filter(one -> !one.agreed())
            .toList();
    Set<PersonId> mine =
        times.officeOver(me, asked.stream().map(WorkTimes.Away::person).distinct().toList());
    return asked.stream()
        .filter(one -> mine.contains(one.person()))
        .sorted(Comparator.comparing((WorkTimes.Away one) -> one.days().first()))
        .map(
            one ->
                new LeaveView(
                    one.id(),
                    one.person().value(),
                    ReaderWords.name(world, one.person()),
                    one.days().first(),
                    one.days().until().minusDays(1),
                    one.hours().map(hours -> hours.from().toString()).orElse(null),
                    one.hours().map(hours -> hours.until().toString()).orElse(null)))
        .toList();
  }

  @GetMapping("/my-day")
  @Operation(summary = "The caller’s own work around today, and what has changed")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  MyDayView myDay(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Instant now = clock.instant();
    List<RecordView> mine = new ArrayList<>();
    for (RecordAccess.Standing one : work.of(world, me)) {
      if (one.sees(DetailKey.TIMES)) {
        views.view(one).ifPresent(mine::add);
      }
    }
    return new MyDayView(
        world.day().toString(),
        now,
        world.house().zone().getId(),
        mine,
        changes(world, me, unseen.of(world, me, true, now)),
        lost.of(me.id()).stream()
            .map(
                one ->
                    new LostView(
                        one.record(),
                        one.day().orElse(null),
                        one.place().orElse(null),
                        one.cancelled()))
            .toList());
  }

  @PostMapping("/my-day/lost/{record}/seen")
  @Operation(summary = "Acknowledge that work is no longer the caller’s")
  ResponseEntity<Void> lostSeen(Asker asker, @PathVariable long record) {
    unseen.markLost(asker.person(), RecordId.of(record));
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/records/{id}/told")
  @Operation(summary = "Note that somebody without an account was told of a record’s changes")
  ResponseEntity<Void> told(
      Asker asker,
      @PathVariable long id,
      @RequestBody @Schema(implementation = ToldWish.class) JsonNode body) {
    RecordAccess.Standing standing = office(asker, id);
    Input input = Input.of(body, ToldWish.class);
    long person = input.number("person").orElse(0);
    Optional<How> how = input.choice("how", How.class);
    if (how.isEmpty() && !input.has("how")) {
      input.fault("how", say("common.is-missing"));
    }
    boolean isOn =
        standing.record().assignments().stream()
            .anyMatch(one -> one.holder().equals(Holder.of(PersonId.of(person))));
    if (!isOn) {
      input.fault("person", say("today.is-not-on-it"));
    } else if (accounts.accounts().containsKey(PersonId.of(person))) {
      input.fault("person", say("today.has-an-account"));
    }
    input.check();
    unseen.told(asker.person(), PersonId.of(person), RecordId.of(id), how.orElseThrow().name());
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/records/{id}/told")
  @Operation(summary = "Who without an account was told of a record’s changes")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<ToldView> toldOf(Asker asker, @PathVariable long id) {
    office(asker, id);
    World world = worlds.now();
    return unseen.toldOf(RecordId.of(id)).stream()
        .map(
            one ->
                new ToldView(
                    ReaderWords.name(world, PersonId.of(one.person())),
                    ReaderWords.name(world, PersonId.of(one.by())),
                    How.valueOf(one.how()),
                    one.at()))
        .toList();
  }

  /** For who has office rights on it; to all others it is not there, or they may not. */
  private RecordAccess.Standing office(Asker asker, long id) {
    World world = worlds.now();
    RecordAccess.Standing standing =
        work.standings(world, world.person(asker.person()), List.of(RecordId.of(id))).stream()
            .findFirst()
            .orElseThrow(Problem::notFound);
    if (!standing.isOffice() || !standing.sees(DetailKey.PEOPLE)) {
      throw Problem.forbidden(say("today.only-coordinators-tell"));
    }
    return standing;
  }

  @PostMapping("/records/{id}/seen")
  @Operation(summary = "Acknowledge the changes of a record")
  ResponseEntity<Void> seen(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    RecordId record = RecordId.of(id);
    if (work.standings(world, me, List.of(record)).isEmpty()) {
      throw Problem.notFound();
    }
    unseen.mark(me.id(), record);
    return ResponseEntity.noContent().build();
  }

  private static List<RecordView> first(Map<Part, List<RecordView>> parts, Part part) {
    return first(parts.getOrDefault(part, List.of()));
  }

  private static List<RecordView> first(List<RecordView> all) {
    return all.size() > MOST_SHOWN ? all.subList(0, MOST_SHOWN) : all;
  }

  private List<UnseenView> changes(World world, Person me, List<UnseenChanges.Change> changes) {
    Set<Long> ids = new HashSet<>();
    changes.forEach(change -> ids.add(change.record()));
    Map<Long, RecordAccess.Standing> standings = new HashMap<>();
    for (RecordAccess.Standing one :
        work.standings(world, me, ids.stream().map(RecordId::of).toList())) {
      if (one.sees(DetailKey.TIMES) && one.sees(DetailKey.PEOPLE) && one.sees(DetailKey.PLACE)) {
        standings.put(one.record().id().value(), one);
      }
    }
    Map<RecordId, List<HistoryView>> told = histories.of(List.copyOf(standings.values()));
    Map<Long, List<UnseenChanges.Change>> byRecord = new LinkedHashMap<>();
    for (UnseenChanges.Change change : changes) {
      RecordAccess.Standing one = standings.get(change.record());
      if (one != null && (one.isOffice() || change.person() == me.id().value())) {
        byRecord.computeIfAbsent(change.record(), key -> new ArrayList<>()).add(change);
      }
    }
    Map<PersonId, AccountStates.State> known = accounts.accounts();
    List<UnseenView> found = new ArrayList<>();
    byRecord.forEach(
        (record, some) -> {
          RecordAccess.Standing one = standings.get(record);
          views
              .view(one)
              .ifPresent(
                  view -> found.add(view(world, view, some, told.get(one.record().id()), known)));
        });
    return found.size() > MOST_SHOWN ? found.subList(0, MOST_SHOWN) : found;
  }

  private static UnseenView view(
      World world,
      RecordView record,
      List<UnseenChanges.Change> changes,
      List<HistoryView> history,
      Map<PersonId, AccountStates.State> known) {
    HistoryView told =
        history.stream().filter(one -> one.act() == changes.get(0).act()).findFirst().orElse(null);
    List<UnseenByView> people =
        changes.stream()
            .map(change -> PersonId.of(change.person()))
            .map(
                one ->
                    new UnseenByView(
                        one.value(), ReaderWords.name(world, one), known.containsKey(one)))
            .sorted(Comparator.comparing(UnseenByView::name))
            .toList();
    return new UnseenView(record, people, told);
  }

  private static boolean hasNobody(WorkRecord record) {
    return record.assignments().stream()
        .noneMatch(
            a -> a.holder() instanceof Holder.OnePerson && !a.role().equals(RoleId.INFORMED));
  }
}
