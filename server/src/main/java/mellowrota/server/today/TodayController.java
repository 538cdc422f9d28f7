package mellowrota.server.today;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
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
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.Histories;
import mellowrota.server.records.HistoryView;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordView;
import mellowrota.server.records.RecordViews;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What wants somebody today, over HTTP. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class TodayController {

  private static final int MOST_SHOWN = 100;

  private final Worlds worlds;
  private final TodayWork work;
  private final RecordViews views;
  private final Histories histories;
  private final UnseenChanges unseen;
  private final Clock clock;

  /**
   * What wants the asker.
   *
   * @param cant somebody on it said that it cannot be done
   * @param nobody work of the next two weeks with nobody on it
   * @param nowhere work that is on no calendar and is no draft
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
      List<RecordView> nowhere,
      List<UnseenView> unseen,
      List<RecordView> ahead) {}

  /** A change that somebody on the work has not marked as seen. */
  @Schema(name = "UnseenChange")
  record UnseenView(RecordView record, long person, String name, @Nullable HistoryView change) {}

  /** The asker's own work around today, and what of it changed. */
  @Schema(name = "MyDay")
  record MyDayView(
      String today, Instant at, String zone, List<RecordView> work, List<UnseenView> changed) {}

  @GetMapping("/today")
  @Operation(
      summary = "What needs attention: overdue, due, unassigned, on no calendar, not acknowledged")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  TodayView today(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Instant now = clock.instant();
    LocalDate today = world.day();
    List<RecordView> cant = new ArrayList<>();
    List<RecordView> overdue = new ArrayList<>();
    List<RecordView> dueToday = new ArrayList<>();
    List<RecordView> nobody = new ArrayList<>();
    List<RecordView> ahead = new ArrayList<>();
    for (RecordAccess.Standing one : work.wanting(world, me)) {
      WorkRecord record = one.record();
      RecordView view = views.view(one).orElseThrow();
      if (!one.sees(DetailKey.TIMES)) {
        continue;
      }
      if (record.cant()) {
        cant.add(view);
      }
      When when = When.of(record, now, today, world.house().zone());
      if (when == When.OVERDUE) {
        overdue.add(view);
      } else if (when == When.DUE_TODAY) {
        dueToday.add(view);
      }
      if (when != When.OVERDUE && one.sees(DetailKey.PEOPLE) && hasNobody(record)) {
        nobody.add(view);
      }
      if (when == When.AHEAD || when == When.DUE_TODAY) {
        ahead.add(view);
      }
    }
    return new TodayView(
        today.toString(),
        now,
        first(cant),
        first(overdue),
        first(dueToday),
        first(nobody),
        first(work.nowhere(world, me).stream().flatMap(o -> views.view(o).stream()).toList()),
        changes(world, me, unseen.of(world, me, false, now)),
        first(ahead));
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
        changes(world, me, unseen.of(world, me, true, now)));
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
    List<UnseenView> found = new ArrayList<>();
    for (UnseenChanges.Change change : changes) {
      RecordAccess.Standing one = standings.get(change.record());
      if (one != null && (one.isOffice() || change.person() == me.id().value())) {
        view(world, one, change, told.get(one.record().id())).ifPresent(found::add);
      }
    }
    return found.size() > MOST_SHOWN ? found.subList(0, MOST_SHOWN) : found;
  }

  private Optional<UnseenView> view(
      World world,
      RecordAccess.Standing standing,
      UnseenChanges.Change change,
      List<HistoryView> history) {
    HistoryView told =
        history.stream().filter(one -> one.act() == change.act()).findFirst().orElse(null);
    String name =
        world.crew().person(PersonId.of(change.person())).map(Person::name).orElse("somebody");
    return views.view(standing).map(record -> new UnseenView(record, change.person(), name, told));
  }

  private static boolean hasNobody(WorkRecord record) {
    return record.assignments().stream()
        .noneMatch(
            a -> a.holder() instanceof Holder.OnePerson && !a.role().equals(RoleId.INFORMED));
  }
}
