package mellowrota.server.records;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/** Reads rows of a record's tables. */
final class RecordRows {

  private RecordRows() {}

  static WorkRecord record(
      ResultSet row,
      List<Visit> visits,
      List<Assignment> assignments,
      Map<DetailKey, DetailValue> details,
      Set<String> tags,
      List<Ruling> rulings)
      throws SQLException {
    int least = row.getInt("least_head_count");
    OptionalInt leastHeadCount = row.wasNull() ? OptionalInt.empty() : OptionalInt.of(least);
    return new WorkRecord(
        RecordId.of(row.getLong("id")),
        row.getString("ref"),
        Kind.valueOf(row.getString("kind")),
        State.valueOf(row.getString("state")),
        State.valueOf(row.getString("state_before")),
        row.getBoolean("started"),
        row.getBoolean("cant"),
        row.getBoolean("private"),
        row.getBoolean("personal"),
        PersonId.of(row.getLong("author")),
        instant(row, "created_at"),
        number(row, "place").map(PlaceId::of),
        number(row, "team").map(TeamId::of),
        due(row),
        RecordFields.dates(row.getString("dates")),
        visits,
        assignments,
        details,
        tags,
        rulings,
        leastHeadCount,
        RecordFields.wants(row.getString("wants")),
        number(row, "estimate").map(Duration::ofMinutes));
  }

  private static Instant instant(ResultSet row, String column) throws SQLException {
    return row.getObject(column, OffsetDateTime.class).toInstant();
  }

  private static Optional<Long> number(ResultSet row, String column) throws SQLException {
    long value = row.getLong(column);
    return row.wasNull() ? Optional.empty() : Optional.of(value);
  }

  private static Optional<Due> due(ResultSet row) throws SQLException {
    LocalDate day = row.getObject("due_day", LocalDate.class);
    if (day != null) {
      return Optional.of(new Due.On(day));
    }
    LocalDateTime local = row.getObject("due_local", LocalDateTime.class);
    return local == null
        ? Optional.empty()
        : Optional.of(
            new Due.At(time(local, row.getString("due_zone"), row.getString("due_offset"))));
  }

  private static ZonedDateTime time(LocalDateTime local, String zone, String offset) {
    return ZonedDateTime.ofLocal(local, ZoneId.of(zone), ZoneOffset.of(offset));
  }

  static Visit visit(ResultSet row) throws SQLException {
    Optional<When> when = Optional.empty();
    LocalDate day = row.getObject("date_from", LocalDate.class);
    LocalDateTime from = row.getObject("local_from", LocalDateTime.class);
    if (day != null) {
      when =
          Optional.of(new When.AllDay(DaySpan.of(day, row.getObject("date_to", LocalDate.class))));
    } else if (from != null) {
      String zone = row.getString("zone");
      when =
          Optional.of(
              new When.Timed(
                  time(from, zone, row.getString("offset_from")),
                  time(
                      row.getObject("local_to", LocalDateTime.class),
                      zone,
                      row.getString("offset_to"))));
    }
    return new Visit(row.getInt("no"), when, margins(row));
  }

  private static Optional<Margins> margins(ResultSet row) throws SQLException {
    String before = row.getString("margin_before");
    return before == null
        ? Optional.empty()
        : Optional.of(
            new Margins(Duration.parse(before), Duration.parse(row.getString("margin_after"))));
  }

  static Assignment assignment(ResultSet row) throws SQLException {
    long holder = row.getLong("holder");
    return new Assignment(
        row.getInt("visit"),
        row.getString("holder_kind").equals("P")
            ? Holder.of(PersonId.of(holder))
            : Holder.of(TeamId.of(holder)),
        RoleId.of(row.getInt("role")),
        instant(row, "given_at"));
  }

  static Ruling ruling(ResultSet row) throws SQLException {
    int visit = row.getInt("visit");
    OptionalInt which = row.wasNull() ? OptionalInt.empty() : OptionalInt.of(visit);
    return new Ruling(
        Ruling.Sort.valueOf(row.getString("sort")),
        row.getLong("calendar"),
        which,
        row.getString("reason"));
  }
}
