package mellowrota.server.crew;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mellowrota.server.platform.Asker;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Tells coordinators what was settled for the crew and the house, by whom. */
@RestController
class SettledController {

  private static final int AT_ONCE = 50;

  /** Of an act that settled much, so many rows are told of. */
  private static final int LOOKED_AT = 20;

  private final People people;
  private final SettledActs settled;
  private final JdbcClient jdbc;

  SettledController(People people, SettledActs settled, JdbcClient jdbc) {
    this.people = people;
    this.settled = settled;
    this.jdbc = jdbc;
  }

  @Schema(name = "SettledLine")
  record LineView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String before,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String after) {}

  @JsonInclude(JsonInclude.Include.NON_NULL)
  @Schema(name = "SettledAct")
  record SettledView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long act,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant at,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String who,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, example = "crew.hours") String kind,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description =
                  "Names of people, teams, places, regions and duties it changed; the first of many")
          List<String> about,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "What changed in it; the first of many")
          List<LineView> lines,
      @Schema(description = "What sort of act it took back, if it took one back") String undoes,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "Taken back meanwhile")
          boolean undone) {}

  @Schema(name = "SettledPage")
  record PageView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<SettledView> items,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "There are earlier ones")
          boolean more) {}

  @GetMapping("/api/v1/settled")
  @Operation(summary = "What was settled for the crew and the house, newest first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  PageView settled(
      Asker asker,
      @Schema(description = "Only acts before this one") @RequestParam(required = false)
          Long before) {
    people.requireCoordinator(asker);
    List<SettledView> found = acts(before == null ? Long.MAX_VALUE : before);
    return new PageView(found.subList(0, Math.min(AT_ONCE, found.size())), found.size() > AT_ONCE);
  }

  private record Done(
      long id, Instant at, String who, String kind, String undoes, boolean undone) {}

  private List<SettledView> acts(long before) {
    List<Done> found =
        jdbc.sql(
                """
                select a.id, a.at, p.name, a.kind, b.kind,
                  exists (select 1 from act u where u.undoes = a.id)
                from act a join person p on p.id = a.actor left join act b on b.id = a.undoes
                where a.id in (select r.act from act_row r join act b on b.id = r.act
                  where r.act < :before and b.actor <> 0
                  group by r.act order by r.act desc limit :many)
                order by a.id desc
                """)
            .param("before", before)
            .param("many", AT_ONCE + 1)
            .query(
                (row, n) ->
                    new Done(
                        row.getLong(1),
                        row.getObject(2, OffsetDateTime.class).toInstant(),
                        row.getString(3),
                        row.getString(4),
                        row.getString(5),
                        row.getBoolean(6)))
            .list();
    Map<Long, List<SettledActs.Row>> rows =
        settled.firstRows(found.stream().map(Done::id).collect(Collectors.toSet()), LOOKED_AT);
    SettledWords words = new SettledWords(names());
    return found.stream()
        .map(one -> said(one, words, rows.getOrDefault(one.id(), List.of())))
        .toList();
  }

  private static SettledView said(Done one, SettledWords words, List<SettledActs.Row> rows) {
    return new SettledView(
        one.id(),
        one.at(),
        one.who(),
        one.kind(),
        rows.stream().flatMap(row -> words.about(row).stream()).distinct().toList(),
        words.lines(rows).stream()
            .map(line -> new LineView(line.label(), line.before(), line.after()))
            .toList(),
        one.undoes(),
        one.undone());
  }

  private Map<String, String> names() {
    Map<String, String> names = new HashMap<>();
    jdbc.sql(
            """
            select 'person ' || id, name from person union all select 'team ' || id, name from team
            union all select 'place ' || id, name from place
            union all select 'region ' || id, name from region
            union all select 'duty ' || id, name from duty
            union all select 'role ' || number, name from role
            """)
        .query(
            row -> {
              names.put(row.getString(1), row.getString(2));
            });
    return names;
  }
}
