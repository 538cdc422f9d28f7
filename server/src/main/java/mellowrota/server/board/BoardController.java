package mellowrota.server.board;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.links.OutsideBusy;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The board over HTTP. */
@RestController
@RequestMapping("/api/v1/board")
@RequiredArgsConstructor
class BoardController {

  private static final int MOST_DAYS = 100;
  private static final int MOST_CALENDARS = 20;

  private final Worlds worlds;
  private final BoardItems items;
  private final WorkTimes times;
  private final OutsideBusy busy;

  /**
   * The board for some days.
   *
   * @param zone the house's, whose days these are
   * @param hours when people work, of those the asker may know it of
   * @param away when they do not; why is told to the office and to themselves
   * @param busy when they are busy outside, told to themselves and to whoever has office rights on
   *     them
   * @param busyKnown how far that can be trusted
   */
  @Schema(name = "Board")
  record BoardView(
      String from,
      String until,
      String zone,
      List<BoardItem> items,
      List<HoursView> hours,
      List<DayView> days,
      List<AwayView> away,
      List<BusyView> busy,
      List<BusyKnownView> busyKnown) {}

  /** A span in which somebody is busy outside. */
  @Schema(name = "BoardBusy")
  record BusyView(long person, Instant starts, Instant ends, boolean tentative) {}

  /** When somebody's outside calendars were read. */
  @Schema(name = "BoardBusyKnown")
  record BusyKnownView(long person, @Nullable Instant readAt, OutsideBusy.Trust trust) {}

  /** Working hours on one weekday, Monday is 1; until midnight or later where not after from. */
  @Schema(name = "BoardHours")
  record HoursView(
      long person,
      int weekday,
      String from,
      String until,
      @Schema(description = "Valid from") @Nullable LocalDate first,
      @Schema(description = "Last day on which they are valid") @Nullable LocalDate last) {}

  /** A day on which somebody's hours are not those of the week. */
  @Schema(name = "BoardDay")
  record DayView(
      long person,
      LocalDate day,
      @Schema(description = "Whether the person works that day") boolean works) {}

  /** Days on which somebody is away, the last included. */
  @Schema(name = "BoardAway")
  record AwayView(
      long person,
      String first,
      String last,
      @Nullable String what,
      @Schema(description = "Of some hours of that day") @Nullable Instant starts,
      @Nullable Instant ends) {}

  @GetMapping
  @Operation(summary = "What is on the board in a range of days, as the caller may see it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  BoardView board(
      Asker asker,
      @Schema(description = "The first day") @RequestParam String from,
      @Schema(description = "The first day after") @RequestParam String until,
      @Schema(description = "Calendars; each item says whether it is on them")
          @RequestParam(defaultValue = "")
          List<Long> calendars) {
    LocalDate first = day("from", from);
    LocalDate end = day("until", until);
    if (!end.isAfter(first) || first.plusDays(MOST_DAYS).isBefore(end)) {
      throw Problem.badRequest(say("common.until-must-be-1", MOST_DAYS));
    }
    World world = worlds.now();
    Person me = world.person(asker.person());
    WorkTimes.Known known = times.knownTo(me, first, end);
    TimeSpan days = DaySpan.of(first, end).in(world.house().zone());
    Function<PersonId, ZoneId> zones = times.zones(world.house().zone());
    Set<PersonId> watched = times.answeredForBy(me, busy.people());
    return new BoardView(
        first.toString(),
        end.toString(),
        world.house().zone().getId(),
        items.of(world, me, first, end, readable(world, me, calendars)),
        known.hours().stream()
            .map(
                h ->
                    new HoursView(
                        h.person().value(),
                        h.weekday().getValue(),
                        h.from().toString(),
                        h.until().toString(),
                        h.first().orElse(null),
                        h.last().orElse(null)))
            .toList(),
        known.dated().stream()
            // Elsewhere than at the one place the week's hours hold.
            .filter(d -> d.place().isEmpty())
            .map(d -> new DayView(d.person().value(), d.day(), !d.times().isEmpty()))
            .toList(),
        known.away().stream()
            .filter(WorkTimes.Away::agreed)
            .map(
                a -> {
                  TimeSpan span = a.in(zones.apply(a.person()));
                  return new AwayView(
                      a.person().value(),
                      a.days().first().toString(),
                      a.days().until().minusDays(1).toString(),
                      a.told() ? "leave" : null,
                      a.hours().map(hours -> span.start()).orElse(null),
                      a.hours().map(hours -> span.end()).orElse(null));
                })
            .toList(),
        busy.between(watched, days.start(), days.end(), zones).stream()
            .map(b -> new BusyView(b.person().value(), b.starts(), b.ends(), b.tentative()))
            .toList(),
        busy.ages(watched).stream()
            .map(a -> new BusyKnownView(a.person().value(), a.readAt(), a.trust()))
            .toList());
  }

  /** Those the asker may know what stands on; the others as if they were not there. */
  private static Set<CalendarId> readable(World world, Person asker, List<Long> calendars) {
    if (calendars.size() > MOST_CALENDARS) {
      throw Problem.badRequest(say("board.there-can-be-at", MOST_CALENDARS));
    }
    return calendars.stream()
        .map(CalendarId::of)
        .filter(id -> world.calendars().find(id).isPresent())
        .filter(
            id -> asker.isCoordinator() || world.calendars().servedTo(asker.id(), id).isPresent())
        .collect(Collectors.toSet());
  }

  private static LocalDate day(String name, String text) {
    try {
      LocalDate day = LocalDate.parse(text);
      if (day.getYear() < 1990 || day.getYear() > 2199) {
        throw Problem.badRequest(say("board.must-be-between-1990", name));
      }
      return day;
    } catch (DateTimeParseException unreadable) {
      throw Problem.badRequest(say("board.must-be-a-date", name));
    }
  }
}
