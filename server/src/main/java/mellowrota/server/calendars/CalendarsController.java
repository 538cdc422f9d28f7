package mellowrota.server.calendars;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.OptionalLong;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.people.Person;
import mellowrota.server.platform.Asker;
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

  private final Worlds worlds;

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
