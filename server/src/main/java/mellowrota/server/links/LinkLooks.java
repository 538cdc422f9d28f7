package mellowrota.server.links;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Person;
import mellowrota.core.sight.Face;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Looks what a link would send and read before there is one. */
@Component
class LinkLooks {

  private static final int NEAREST = 5;

  private final Host host;
  private final Worlds worlds;
  private final JdbcClient jdbc;
  private final Clock clock;

  LinkLooks(Host host, Worlds worlds, JdbcClient jdbc, Clock clock) {
    this.clock = clock;
    this.host = host;
    this.worlds = worlds;
    this.jdbc = jdbc;
  }

  @Schema(name = "LinkLook")
  record LookView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String href,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "Copies it would get")
          long copies,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "The nearest of them")
          List<NearView> nearest,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "Entries that stand there, of which busy times would be read; else 0")
          long read) {}

  @Schema(name = "LinkLookEntry")
  record NearView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String title,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String when) {}

  /** Entries as the asker is served them; of a calendar they do not read only how many. */
  List<LookView> at(Person asker, Host.Account account, List<Links.Wanted> wanted)
      throws OutsideFault {
    List<LookView> found = new ArrayList<>();
    for (Links.Wanted one : wanted) {
      long read = one.readsBusy() ? host.all(account, one.href()).tags().size() : 0;
      found.add(
          new LookView(
              one.href().toString(),
              one.name(),
              one.writes().map(calendar -> copies(calendar, one)).orElse(0L),
              one.writes().map(calendar -> nearest(asker, calendar, one)).orElse(List.of()),
              read));
    }
    return found;
  }

  private OffsetDateTime from(Links.Wanted one) {
    World world = worlds.now();
    LocalDate day = one.from().orElse(world.day());
    return day.atStartOfDay(world.house().zone()).toInstant().atOffset(ZoneOffset.UTC);
  }

  private static String[] families(Links.Wanted one) {
    return one.families().stream().map(Enum::name).toArray(String[]::new);
  }

  private long copies(CalendarId calendar, Links.Wanted one) {
    return jdbc.sql(
            """
            select count(*) from entry where calendar = :calendar and state = 'LIVE'
              and ends >= :from and (cardinality(:families::text[]) = 0
                or family = any(:families::text[]))
            """)
        .param("calendar", calendar.value())
        .param("from", from(one))
        .param("families", families(one))
        .query(Long.class)
        .single();
  }

  private List<NearView> nearest(Person asker, CalendarId calendar, Links.Wanted one) {
    Optional<Rendering> mine = worlds.now().calendars().servedTo(asker.id(), calendar);
    if (mine.isEmpty()) {
      return List.of();
    }
    return jdbc
        .sql(
            """
            select f.content from face f join entry e on e.id = f.entry
            where f.rendering = :rendering and f.live and f.ends >= :from
              and (cardinality(:families::text[]) = 0 or e.family = any(:families::text[]))
            order by abs(extract(epoch from f.starts - :now::timestamptz)), f.entry limit :most
            """)
        .param("rendering", mine.get().id().value())
        .param("from", from(one))
        .param("families", families(one))
        .param("now", clock.instant().atOffset(ZoneOffset.UTC))
        .param("most", NEAREST)
        .query((row, n) -> Face.parse(row.getString(1)))
        .list()
        .stream()
        .map(face -> new NearView(face.title(), Changes.words(face.times())))
        .toList();
  }
}
