package mellowrota.server.crew;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
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

  /** Of an act that settled much, so many rows are looked at to say what it was about. */
  private static final int LOOKED_AT = 20;

  private final People people;
  private final JdbcClient jdbc;

  SettledController(People people, JdbcClient jdbc) {
    this.people = people;
    this.jdbc = jdbc;
  }

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

  private List<SettledView> acts(long before) {
    Map<Long, SettledView> found = new LinkedHashMap<>();
    jdbc.sql(
            """
            select a.id, a.at, p.name, a.kind, b.kind,
              exists (select 1 from act u where u.undoes = a.id)
            from act a join person p on p.id = a.actor left join act b on b.id = a.undoes
            where a.id in (select r.act from act_row r join act b on b.id = r.act
              where r.act < :before and b.actor <> 0 group by r.act order by r.act desc limit :many)
            order by a.id desc
            """)
        .param("before", before)
        .param("many", AT_ONCE + 1)
        .query(
            row -> {
              found.put(
                  row.getLong(1),
                  new SettledView(
                      row.getLong(1),
                      row.getObject(2, OffsetDateTime.class).toInstant(),
                      row.getString(3),
                      row.getString(4),
                      List.of(),
                      row.getString(5),
                      row.getBoolean(6)));
            });
    Map<Long, Set<String>> about = about(found.keySet());
    return found.values().stream()
        .map(
            one ->
                new SettledView(
                    one.act(),
                    one.at(),
                    one.who(),
                    one.kind(),
                    List.copyOf(about.getOrDefault(one.act(), Set.of())),
                    one.undoes(),
                    one.undone()))
        .toList();
  }

  /** Names as they are now, else as they were when it was done. */
  private Map<Long, Set<String>> about(Set<Long> acts) {
    Map<Long, Set<String>> names = new LinkedHashMap<>();
    jdbc.sql(
            """
            select r.act, coalesce(p.name, t.name, l.name, d.name, g.name, r.kept ->> 'name'), o.name
            from (
              select act, id, kept_in, coalesce(after, before) as kept,
                row_number() over (partition by act order by id) as no
              from act_row where act = any(?) and kept_in not in ('calendar', 'taken_row', 'house')
            ) r
            left join person p on p.id = case r.kept_in when 'person' then (r.kept ->> 'id')::bigint
              else coalesce(r.kept ->> 'person', r.kept ->> 'member_person')::bigint end
            left join team t on t.id = case r.kept_in when 'team' then (r.kept ->> 'id')::bigint
              when 'membership' then (r.kept ->> 'member_team')::bigint end
            left join place l on l.id = case r.kept_in when 'place' then (r.kept ->> 'id')::bigint
              when 'travel' then (r.kept ->> 'from_place')::bigint
              when 'closure' then (r.kept ->> 'place')::bigint end
            left join duty d on d.id = case r.kept_in when 'duty' then (r.kept ->> 'id')::bigint
              else (r.kept ->> 'duty')::bigint end
            left join region g on g.id = case r.kept_in when 'region' then (r.kept ->> 'id')::bigint
              when 'holiday' then (r.kept ->> 'region')::bigint end
            left join team o on r.kept_in = 'membership' and o.id = (r.kept ->> 'team')::bigint
            where r.no <= ?
            order by r.id
            """)
        .param(acts.toArray(Long[]::new))
        .param(LOOKED_AT)
        .query(
            row -> {
              for (int column = 2; column <= 3; column++) {
                if (row.getString(column) != null) {
                  names
                      .computeIfAbsent(row.getLong(1), key -> new LinkedHashSet<>())
                      .add(row.getString(column));
                }
              }
            });
    return names;
  }
}
