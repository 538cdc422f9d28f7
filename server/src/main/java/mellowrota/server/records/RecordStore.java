package mellowrota.server.records;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.zone.ZoneRulesProvider;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/**
 * Keeps records. Timed work is kept as local time, zone and chosen offset; the instant is derived
 * and kept with the version of the zone data.
 */
@Repository
public class RecordStore {

  private static final String TZDB = ZoneRulesProvider.getVersions("UTC").lastEntry().getKey();

  private static final List<String> TABLES =
      List.of("visit", "assignment", "detail", "tag", "ruling");

  /** The columns of the record's own row that may change. */
  private static final List<String> CHANGING =
      List.of(
          "state",
          "state_before",
          "started",
          "private",
          "place",
          "team",
          "due_local",
          "due_zone",
          "due_offset",
          "due_day",
          "due_at",
          "tzdb",
          "least_head_count");

  private static final String INSERT =
      "insert into record ("
          + String.join(", ", CHANGING)
          + ", id, ref, source, source_id, kind, author, created_at, personal)"
          + " overriding system value values (?"
          + ", ?".repeat(CHANGING.size() + 7)
          + ")";

  private static final String UPDATE =
      "update record set "
          + String.join(" = ?, ", CHANGING)
          + " = ?, version = version + 1 where id = ?";

  private final JdbcClient jdbc;
  private final JdbcTemplate template;

  RecordStore(JdbcClient jdbc, JdbcTemplate template) {
    this.jdbc = jdbc;
    this.template = template;
  }

  /** Takes a number for a new record and the ref that goes with its kind. */
  String nextRef(Kind kind) {
    long number = jdbc.sql("select nextval('ref_number')").query(Long.class).single();
    return switch (kind) {
          case JOB -> "J-";
          case TICKET -> "T-";
          case SHIFT -> "S-";
          case DEADLINE -> "D-";
        }
        + number;
  }

  /** Loads what is there of these, in the order asked for; locks the rows if they will change. */
  public List<WorkRecord> load(Collection<RecordId> ids, boolean forUpdate) {
    if (ids.isEmpty()) {
      return List.of();
    }
    Long[] numbers = ids.stream().map(RecordId::value).toArray(Long[]::new);
    Map<Long, List<Visit>> visits = new HashMap<>();
    Map<Long, List<Assignment>> assignments = new HashMap<>();
    Map<Long, Map<DetailKey, DetailValue>> details = new HashMap<>();
    Map<Long, Set<String>> tags = new HashMap<>();
    Map<Long, List<Ruling>> rulings = new HashMap<>();
    if (forUpdate) {
      jdbc.sql("select id from record where id = any(?) order by id for update")
          .param(numbers)
          .query(Long.class)
          .list();
    }
    jdbc.sql("select * from visit where record = any(?) order by record, no")
        .param(numbers)
        .query(
            row -> {
              list(visits, row).add(RecordRows.visit(row));
            });
    jdbc.sql("select * from assignment where record = any(?) order by record, visit, position")
        .param(numbers)
        .query(
            row -> {
              list(assignments, row).add(RecordRows.assignment(row));
            });
    jdbc.sql("select record, key, value, for_bits from detail where record = any(?)")
        .param(numbers)
        .query(
            row -> {
              long bits = row.getLong(4);
              Optional<ForSet> set =
                  row.wasNull() ? Optional.empty() : Optional.of(new ForSet(bits));
              details
                  .computeIfAbsent(row.getLong(1), key -> new HashMap<>())
                  .put(new DetailKey(row.getString(2)), new DetailValue(row.getString(3), set));
            });
    jdbc.sql("select record, tag from tag where record = any(?)")
        .param(numbers)
        .query(
            row -> {
              tags.computeIfAbsent(row.getLong(1), key -> new HashSet<>()).add(row.getString(2));
            });
    jdbc.sql("select * from ruling where record = any(?) order by record, position")
        .param(numbers)
        .query(
            row -> {
              list(rulings, row).add(RecordRows.ruling(row));
            });
    Map<Long, WorkRecord> found = new LinkedHashMap<>();
    jdbc.sql("select * from record where id = any(?)")
        .param(numbers)
        .query(
            row -> {
              long id = row.getLong("id");
              found.put(
                  id,
                  RecordRows.record(
                      row,
                      visits.getOrDefault(id, List.of()),
                      assignments.getOrDefault(id, List.of()),
                      details.getOrDefault(id, Map.of()),
                      tags.getOrDefault(id, Set.of()),
                      rulings.getOrDefault(id, List.of())));
            });
    List<WorkRecord> ordered = new ArrayList<>(found.size());
    for (Long id : numbers) {
      if (found.containsKey(id)) {
        ordered.add(found.get(id));
      }
    }
    return ordered;
  }

  public Optional<WorkRecord> find(RecordId id, boolean forUpdate) {
    return load(List.of(id), forUpdate).stream().findFirst();
  }

  private static <T> List<T> list(Map<Long, List<T>> lists, ResultSet row) throws SQLException {
    return lists.computeIfAbsent(row.getLong("record"), key -> new ArrayList<>());
  }

  /** Takes the number under which a new record will be kept. */
  RecordId reserve() {
    return RecordId.of(
        jdbc.sql("select nextval(pg_get_serial_sequence('record', 'id'))")
            .query(Long.class)
            .single());
  }

  /** Keeps a new record. */
  void insert(WorkRecord record, Optional<String> source, Optional<String> sourceId) {
    List<Object> values = new ArrayList<>(changing(record));
    values.addAll(
        Arrays.asList(
            record.id().value(),
            record.ref(),
            source.orElse(null),
            sourceId.orElse(null),
            record.kind().name(),
            record.author().value(),
            record.createdAt().atOffset(ZoneOffset.UTC),
            record.personal()));
    template.update(INSERT, values.toArray());
    for (String table : TABLES) {
      insertInto(table, record);
    }
  }

  /**
   * Keeps a record as it now is, raises its version, and writes anew only the tables that changed.
   */
  void write(WorkRecord record, List<FieldChange> changes) {
    writeRow(record);
    for (String table : TABLES) {
      if (changes.stream().anyMatch(change -> table.equals(table(change.field())))) {
        template.update("delete from " + table + " where record = ?", record.id().value());
        insertInto(table, record);
      }
    }
  }

  /** In which table a field is kept; the record's own row holds the others. */
  private static String table(String field) {
    return switch (field) {
      case RecordFields.VISITS, RecordFields.MARGINS -> "visit";
      case RecordFields.ASSIGNMENTS -> "assignment";
      case RecordFields.TAGS -> "tag";
      case RecordFields.RULINGS -> "ruling";
      default -> field.contains(":") ? "detail" : "record";
    };
  }

  private void writeRow(WorkRecord record) {
    List<Object> values = new ArrayList<>(changing(record));
    values.add(record.id().value());
    template.update(UPDATE, values.toArray());
  }

  /** The values of {@link #CHANGING}. */
  private static List<Object> changing(WorkRecord record) {
    Due due = record.due().orElse(null);
    ZonedDateTime at = due instanceof Due.At timed ? timed.time() : null;
    LocalDate day = due instanceof Due.On on ? on.day() : null;
    OffsetDateTime sortedAt =
        at != null
            ? at.toInstant().atOffset(ZoneOffset.UTC)
            : day == null ? null : day.plusDays(1).atStartOfDay().atOffset(ZoneOffset.UTC);
    return Arrays.asList(
        record.state().name(),
        record.stateBefore().name(),
        record.started(),
        record.isPrivate(),
        record.place().map(PlaceId::value).orElse(null),
        record.team().map(TeamId::value).orElse(null),
        at == null ? null : at.toLocalDateTime(),
        at == null ? null : at.getZone().getId(),
        at == null ? null : at.getOffset().getId(),
        day,
        sortedAt,
        TZDB,
        record.leastHeadCount().isPresent() ? record.leastHeadCount().getAsInt() : null);
  }

  private void insertInto(String table, WorkRecord record) {
    long id = record.id().value();
    switch (table) {
      case "visit" -> record.visits().forEach(visit -> insert(id, visit));
      case "assignment" -> insertAssignments(id, record.assignments());
      case "detail" -> insertDetails(id, record.details());
      case "tag" -> insertTags(id, record.tags());
      default -> insertRulings(id, record.rulings());
    }
  }

  private void insertDetails(long id, Map<DetailKey, DetailValue> values) {
    List<Object[]> rows = new ArrayList<>();
    values.forEach(
        (key, value) ->
            rows.add(
                new Object[] {
                  id, key.name(), value.text(), value.forWhom().map(ForSet::bits).orElse(null)
                }));
    template.batchUpdate(
        "insert into detail (record, key, value, for_bits) values (?, ?, ?, ?)", rows);
  }

  private void insertTags(long id, Set<String> tags) {
    List<Object[]> rows = new ArrayList<>();
    tags.forEach(tag -> rows.add(new Object[] {id, tag}));
    template.batchUpdate("insert into tag (record, tag) values (?, ?)", rows);
  }

  private void insertRulings(long id, List<Ruling> rulings) {
    int position = 0;
    for (Ruling ruling : rulings) {
      template.update(
          """
          insert into ruling (record, position, sort, calendar, visit, reason)
          values (?, ?, ?, ?, ?, ?)
          """,
          id,
          position++,
          ruling.sort().name(),
          ruling.calendar(),
          ruling.visit().isPresent() ? ruling.visit().getAsInt() : null,
          ruling.reason());
    }
  }

  private void insert(long record, Visit visit) {
    When.Timed timed = visit.when().orElse(null) instanceof When.Timed t ? t : null;
    When.AllDay allDay = visit.when().orElse(null) instanceof When.AllDay a ? a : null;
    template.update(
        """
        insert into visit (record, no, local_from, local_to, zone, offset_from, offset_to, date_from,
          date_to, starts, ends, tzdb, margin_before, margin_after)
        values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
        """,
        record,
        visit.no(),
        timed == null ? null : timed.start().toLocalDateTime(),
        timed == null ? null : timed.end().toLocalDateTime(),
        timed == null ? null : timed.start().getZone().getId(),
        timed == null ? null : timed.start().getOffset().getId(),
        timed == null ? null : timed.end().getOffset().getId(),
        allDay == null ? null : allDay.days().first(),
        allDay == null ? null : allDay.days().until(),
        timed == null ? null : timed.start().toInstant().atOffset(ZoneOffset.UTC),
        timed == null ? null : timed.end().toInstant().atOffset(ZoneOffset.UTC),
        timed == null ? null : TZDB,
        visit.margins().map(m -> m.before().toString()).orElse(null),
        visit.margins().map(m -> m.after().toString()).orElse(null));
  }

  private void insertAssignments(long record, List<Assignment> assignments) {
    List<Object[]> rows = new ArrayList<>();
    int position = 0;
    for (Assignment a : assignments) {
      boolean person = a.holder() instanceof Holder.OnePerson;
      long holder =
          a.holder() instanceof Holder.OnePerson one
              ? one.person().value()
              : ((Holder.WholeTeam) a.holder()).team().value();
      rows.add(
          new Object[] {
            record,
            a.visit(),
            position++,
            person ? "P" : "T",
            holder,
            a.role().value(),
            a.givenAt().atOffset(ZoneOffset.UTC)
          });
    }
    template.batchUpdate(
        """
        insert into assignment (record, visit, position, holder_kind, holder, role, given_at)
        values (?, ?, ?, ?, ?, ?, ?)
        """,
        rows);
  }

  /** Writes history: what changed, and whom each field was for at the time. */
  void remember(long act, RecordId record, List<FieldChange> changes, List<ForSet> forThen) {
    jdbc.sql(
            """
            insert into history (act, record, field, old, new, for_then)
            select ?, ?, field, old, new, for_then
            from unnest(?::text[], ?::text[], ?::text[], ?::bigint[]) as f (field, old, new, for_then)
            """)
        .param(act)
        .param(record.value())
        .param(changes.stream().map(FieldChange::field).toArray(String[]::new))
        .param(changes.stream().map(FieldChange::before).toArray(String[]::new))
        .param(changes.stream().map(FieldChange::after).toArray(String[]::new))
        .param(forThen.stream().map(ForSet::bits).toArray(Long[]::new))
        .update();
  }
}
