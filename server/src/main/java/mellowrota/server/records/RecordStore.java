package mellowrota.server.records;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
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
import mellowrota.server.platform.Writes;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/**
 * Keeps records. Timed work is kept as local time, zone and chosen offset; the instant is derived
 * and kept with the version of the zone data.
 */
@Repository
public class RecordStore {

  /** The columns of the record's own row that may change. */
  private static final List<String> CHANGING =
      List.of(
          "state",
          "state_before",
          "started",
          "cant",
          "private",
          "place",
          "team",
          "due_local",
          "due_zone",
          "due_offset",
          "due_day",
          "due_at",
          "sorts_at",
          "tzdb",
          "dates",
          "least_head_count",
          "wants",
          "estimate");

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

  RecordStore(JdbcClient jdbc) {
    this.jdbc = jdbc;
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
      lock(ids);
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

  /** Locks the rows in the order of their numbers. */
  void lock(Collection<RecordId> ids) {
    jdbc.sql("select id from record where id = any(?) order by id for update")
        .param(ids.stream().map(RecordId::value).toArray(Long[]::new))
        .query(Long.class)
        .list();
  }

  public Optional<WorkRecord> find(RecordId id, boolean forUpdate) {
    return load(List.of(id), forUpdate).stream().findFirst();
  }

  private static <T> List<T> list(Map<Long, List<T>> lists, ResultSet row) throws SQLException {
    return lists.computeIfAbsent(row.getLong("record"), key -> new ArrayList<>());
  }

  /** What a new record will be called. */
  record Numbers(RecordId id, String ref) {}

  /**
   * Takes the number under which a new record will be kept, and the ref that goes with its kind.
   */
  Numbers reserve(Kind kind) {
    String letter =
        switch (kind) {
          case JOB -> "J-";
          case TICKET -> "T-";
          case SHIFT -> "S-";
          case DEADLINE -> "D-";
        };
    return jdbc.sql("select nextval(pg_get_serial_sequence('record', 'id')), nextval('ref_number')")
        .query((row, n) -> new Numbers(RecordId.of(row.getLong(1)), letter + row.getLong(2)))
        .single();
  }

  /** Keeps a new record with the beginning of its history. */
  void insert(
      Writes writes,
      WorkRecord record,
      Optional<String> source,
      Optional<String> sourceId,
      Remembered history) {
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
    writes.add(INSERT, values.toArray());
    for (String table : RecordTables.ALL) {
      RecordTables.insert(writes, table, record);
    }
    remember(writes, record.id(), history);
  }

  /**
   * Keeps a record as it now is, raises its version, and writes anew only the tables that changed.
   */
  void write(Writes writes, WorkRecord record, Remembered history) {
    List<Object> values = new ArrayList<>(changing(record));
    values.add(record.id().value());
    writes.add(UPDATE, values.toArray());
    for (String table : RecordTables.ALL) {
      if (history.changes().stream().anyMatch(change -> table.equals(table(change.field())))) {
        writes.add("delete from " + table + " where record = ?", record.id().value());
        RecordTables.insert(writes, table, record);
      }
    }
    remember(writes, record.id(), history);
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

  /** When the first visit begins; null where none has a span. Days begin at midnight, UTC. */
  private static OffsetDateTime begins(WorkRecord record) {
    return record.visits().stream()
        .flatMap(visit -> visit.when().stream())
        .map(
            when ->
                when instanceof When.Timed timed
                    ? timed.start().toInstant().atOffset(ZoneOffset.UTC)
                    : ((When.AllDay) when).days().first().atStartOfDay().atOffset(ZoneOffset.UTC))
        .min(Comparator.naturalOrder())
        .orElse(null);
  }

  /** The values of {@link #CHANGING}. */
  private static List<Object> changing(WorkRecord record) {
    Due due = record.due().orElse(null);
    ZonedDateTime at = due instanceof Due.At timed ? timed.time() : null;
    LocalDate day = due instanceof Due.On on ? on.day() : null;
    OffsetDateTime dueAt =
        at != null
            ? at.toInstant().atOffset(ZoneOffset.UTC)
            : day == null ? null : day.plusDays(1).atStartOfDay().atOffset(ZoneOffset.UTC);
    return Arrays.asList(
        record.state().name(),
        record.stateBefore().name(),
        record.started(),
        record.cant(),
        record.isPrivate(),
        record.place().map(PlaceId::value).orElse(null),
        record.team().map(TeamId::value).orElse(null),
        at == null ? null : at.toLocalDateTime(),
        at == null ? null : at.getZone().getId(),
        at == null ? null : at.getOffset().getId(),
        day,
        dueAt,
        dueAt == null ? begins(record) : dueAt,
        RecordTables.TZDB,
        RecordFields.print(record.dates()),
        record.leastHeadCount().isPresent() ? record.leastHeadCount().getAsInt() : null,
        RecordFields.print(record.wants()),
        record.estimate().map(Duration::toMinutes).orElse(null));
  }

  /** What history keeps of a change: the act, and whom each field was for at the time. */
  record Remembered(long act, List<FieldChange> changes, List<ForSet> forThen) {}

  private static void remember(Writes writes, RecordId record, Remembered history) {
    List<FieldChange> changes = history.changes();
    writes.add(
        """
        insert into history (act, record, field, old, new, for_then)
        select ?, ?, * from unnest(?::text[], ?::text[], ?::text[], ?::bigint[])
        """,
        history.act(),
        record.value(),
        changes.stream().map(FieldChange::field).toArray(String[]::new),
        changes.stream().map(FieldChange::before).toArray(String[]::new),
        changes.stream().map(FieldChange::after).toArray(String[]::new),
        history.forThen().stream().map(ForSet::bits).toArray(Long[]::new));
  }
}
