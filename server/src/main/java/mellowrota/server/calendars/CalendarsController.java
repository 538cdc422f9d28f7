package mellowrota.server.calendars;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.core.rule.LandingRule;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.platform.Asker;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The house's calendars over HTTP. */
@RestController
@RequiredArgsConstructor
class CalendarsController {

  private static final Duration WEEK = Duration.ofDays(7);

  private final Worlds worlds;
  private final Faces faces;
  private final Entries entries;
  private final Clock clock;

  /**
   * A calendar.
   *
   * @param owner the person, team or place whose it is, by its sort
   * @param reads whether the asker may read it
   */
  @Schema(name = "Calendar")
  record CalendarView(
      long id, String name, Calendar.Sort sort, @Nullable Long owner, boolean reads) {}

  @GetMapping("/api/v1/calendars")
  @Operation(summary = "List the calendars the caller may read; coordinators see all")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CalendarView> calendars(Asker asker) {
    World world = worlds.now();
    Person person = world.person(asker.person());
    return world.calendars().all().stream()
        .map(calendar -> view(world, person, calendar))
        .filter(view -> view.reads() || person.isCoordinator())
        .toList();
  }

  /**
   * What stands on a calendar in the next seven days.
   *
   * @param entries as the asker gets them; a coordinator who does not read it, as its members do
   * @param readers each way of reading it, in words, for who may list its readers
   * @param rules the places of the rules that land work there in those days, for coordinators
   */
  @Schema(name = "CalendarWeek")
  record WeekView(
      long calendar, long entries, List<ReaderView> readers, @Nullable List<Integer> rules) {}

  /**
   * Who reads a calendar in one way.
   *
   * @param way MEMBERS, SHARE, COPY or FEED
   */
  @Schema(name = "CalendarReaders")
  record ReaderView(
      @Schema(allowableValues = {"MEMBERS", "SHARE", "FEED", "COPY"}) String way, String readers) {}

  @GetMapping("/api/v1/calendars/week")
  @Operation(
      summary = "What stands on each of these calendars in the next seven days, and who reads it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<WeekView> week(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Map<CalendarId, RenderingId> read = new LinkedHashMap<>();
    for (Calendar one : world.calendars().all()) {
      rendering(world, me, one).ifPresent(rendering -> read.put(one.id(), rendering.id()));
    }
    Instant from = clock.instant();
    Instant until = from.plus(WEEK);
    Map<Long, Long> counts =
        faces.counts(read.values(), from, until).stream()
            .collect(Collectors.toMap(Faces.Count::rendering, Faces.Count::faces));
    Map<Long, List<Integer>> rules = me.isCoordinator() ? rules(world, from, until) : Map.of();
    return read.entrySet().stream()
        .map(
            one ->
                new WeekView(
                    one.getKey().value(),
                    counts.getOrDefault(one.getValue().value(), 0L),
                    readers(world, me, world.calendars().find(one.getKey()).orElseThrow()),
                    me.isCoordinator()
                        ? rules.getOrDefault(one.getKey().value(), List.of())
                        : null))
        .toList();
  }

  private static Optional<Rendering> rendering(World world, Person me, Calendar calendar) {
    return world
        .calendars()
        .servedTo(me.id(), calendar.id())
        .or(
            () ->
                world.calendars().renderingsOf(calendar.id()).stream()
                    .filter(one -> one.way() instanceof Rendering.Way.Members)
                    .filter(one -> me.isCoordinator())
                    .findFirst());
  }

  private Map<Long, List<Integer>> rules(World world, Instant from, Instant until) {
    Map<Long, LandingRule> byId = world.rulesById();
    return entries.landing(from, until).stream()
        .filter(one -> byId.containsKey(one.rule()))
        .collect(
            Collectors.groupingBy(
                Entries.Lands::calendar,
                Collectors.mapping(one -> byId.get(one.rule()).position(), Collectors.toList())));
  }

  private static List<ReaderView> readers(World world, Person me, Calendar calendar) {
    return ReaderWords.mayList(me, calendar)
        ? world.calendars().renderingsOf(calendar.id()).stream()
            .filter(one -> !world.calendars().audience(one.id()).isEmpty())
            .map(one -> new ReaderView(ReaderWords.way(one), ReaderWords.of(world, one)))
            .toList()
        : List.of();
  }

  private static CalendarView view(World world, Person person, Calendar calendar) {
    OptionalLong owner = calendar.owner().number();
    return new CalendarView(
        calendar.id().value(),
        calendar.name(),
        calendar.owner().sort(),
        owner.isPresent() ? owner.getAsLong() : null,
        world.calendars().servedTo(person.id(), calendar.id()).isPresent());
  }
}
