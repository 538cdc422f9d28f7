package mellowrota.server.board;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Due;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.KnownRecords;
import mellowrota.server.records.Permits;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordViews;
import mellowrota.server.records.store.RecordSets;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Finds the visits that lie in a range of days and renders them for one person. */
@Service
@RequiredArgsConstructor
class BoardItems {

  /** No span and no way from hand-over to due time is taken to be longer. */
  private static final int LONGEST_DAYS = 368;

  /** Margins reach out of their visit by a day at most. */
  private static final Duration MARGIN = Duration.ofDays(1);

  private final RecordSets sets;
  private final KnownRecords records;
  private final RecordAccess access;

  /**
   * In the order of records and visits; cost is linear in what lies in the range.
   *
   * @param calendars those of which each item says whether it stands on them
   */
  List<BoardItem> of(
      World world, Person asker, LocalDate first, LocalDate until, Set<CalendarId> calendars) {
    Instant from = first.atStartOfDay(world.house().zone()).toInstant();
    Instant to = until.atStartOfDay(world.house().zone()).toInstant();
    List<RecordAccess.Standing> standings =
        access.standings(world, asker, records.load(inRange(first, until, from, to))).stream()
            .filter(RecordAccess.Standing::opens)
            .toList();
    Map<Long, Set<CalendarId>> on =
        calendars.isEmpty()
            ? Map.of()
            : access.standsOn(standings.stream().map(one -> one.record().id()).toList());
    List<BoardItem> items = new ArrayList<>();
    for (RecordAccess.Standing standing : standings) {
      // Where it lies is a matter of times and of people: without the times it lies nowhere.
      if (standing.sees(DetailKey.TIMES)) {
        List<Long> asked =
            on.getOrDefault(standing.record().id().value(), Set.of()).stream()
                .filter(calendars::contains)
                .map(CalendarId::value)
                .sorted()
                .toList();
        items(standing, first, until, from, to, asked, items);
      }
    }
    return items;
  }

  private Map<Long, Long> inRange(LocalDate first, LocalDate until, Instant from, Instant to) {
    return sets.onBoard(
        new RecordSets.Range(from.minus(MARGIN), to.plus(MARGIN), first, until, LONGEST_DAYS));
  }

  private static void items(
      RecordAccess.Standing standing,
      LocalDate first,
      LocalDate until,
      Instant from,
      Instant to,
      List<Long> on,
      List<BoardItem> items) {
    WorkRecord record = standing.record();
    boolean moves = Permits.mayMove(standing);
    boolean hands = Permits.mayHandOver(standing);
    for (Visit visit : record.visits()) {
      if (!lies(record, visit, first, until, from, to)) {
        continue;
      }
      items.add(
          new BoardItem(
              record.id().value(),
              visit.no(),
              record.visits().size(),
              record.kind(),
              standing.sees(DetailKey.REF) ? record.ref() : null,
              standing.sees(DetailKey.TITLE) ? record.text(DetailKey.TITLE).orElse(null) : null,
              standing.sees(DetailKey.PLACE)
                  ? record.place().map(PlaceId::value).orElse(null)
                  : null,
              standing.sees(DetailKey.PLACE) && !record.uses().isEmpty()
                  ? record.uses().stream().map(PlaceId::value).toList()
                  : null,
              standing.sees(DetailKey.TEAM) ? record.team().map(TeamId::value).orElse(null) : null,
              record.state(),
              record.started() ? true : null,
              record.isPrivate() ? true : null,
              RecordViews.visit(standing, visit),
              record
                  .due()
                  .map(due -> RecordViews.due(due, standing.world().house().zone()))
                  .orElse(null),
              standing.sees(DetailKey.PEOPLE) ? people(record, visit) : null,
              moves ? true : null,
              hands ? true : null,
              on.isEmpty() ? null : on));
    }
  }

  private static boolean lies(
      WorkRecord record, Visit visit, LocalDate first, LocalDate until, Instant from, Instant to) {
    if (record.state() == State.CANCELLED) {
      return false;
    }
    if (visit.when().orElse(null) instanceof When.Timed timed) {
      return timed.start().toInstant().isBefore(to.plus(MARGIN))
          && timed.end().toInstant().isAfter(from.minus(MARGIN));
    }
    if (visit.when().orElse(null) instanceof When.AllDay allDay) {
      return allDay.days().first().isBefore(until) && allDay.days().until().isAfter(first);
    }
    return record.due().filter(due -> lies(record, visit, due, first, until, from, to)).isPresent();
  }

  /** Without a span it lies from when it is given until it is due. */
  private static boolean lies(
      WorkRecord record,
      Visit visit,
      Due due,
      LocalDate first,
      LocalDate until,
      Instant from,
      Instant to) {
    boolean before =
        due instanceof Due.At at
            ? at.time().toInstant().isBefore(from)
            : ((Due.On) due).day().isBefore(first);
    boolean after =
        due instanceof Due.At at
            ? !at.time().toInstant().isBefore(to)
            : !((Due.On) due).day().isBefore(until);
    boolean given =
        record.on(visit.no()).stream().map(Assignment::givenAt).anyMatch(g -> g.isBefore(to));
    return !before && (!after || given);
  }

  private static List<BoardItem.OnIt> people(WorkRecord record, Visit visit) {
    List<BoardItem.OnIt> found = new ArrayList<>();
    for (Assignment a : record.on(visit.no())) {
      boolean person = a.holder() instanceof Holder.OnePerson;
      found.add(
          new BoardItem.OnIt(
              a.role().value(),
              person ? ((Holder.OnePerson) a.holder()).person().value() : null,
              person ? null : ((Holder.WholeTeam) a.holder()).team().value(),
              visit.when().isEmpty() ? a.givenAt() : null));
    }
    return found;
  }
}
