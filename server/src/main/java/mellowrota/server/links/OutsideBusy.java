package mellowrota.server.links;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.store.HouseStore;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * When people are busy in calendars they have elsewhere: times, and how far they can be trusted.
 */
@Service
public class OutsideBusy {

  /** Up to so many reading intervals what was read is fresh, then late, then not known. */
  private static final int FRESH = 2;

  private static final int LATE = 6;

  private final HouseStore house;
  private final JdbcClient jdbc;

  OutsideBusy(HouseStore house, JdbcClient jdbc) {
    this.house = house;
    this.jdbc = jdbc;
  }

  /** Whose calendars are read. */
  public List<PersonId> people() {
    return jdbc.sql(
            """
            select distinct k.person from link k join link_calendar l on l.link = k.id
            where k.ended_at is null and k.person is not null and l.reads_busy order by 1
            """)
        .query((row, n) -> PersonId.of(row.getLong(1)))
        .list();
  }

  /** A span; a whole day is that of the house, whose days the board has. */
  public record Span(PersonId person, Instant starts, Instant ends, boolean tentative) {}

  /** The same event in two calendars counts once. */
  public List<Span> between(Set<PersonId> people, Instant from, Instant until, ZoneId zone) {
    return jdbc
        .sql(
            """
            select distinct on (k.person, b.uid_hash, b.starts) k.person, b.starts, b.ends,
              b.first_day, b.until_day, b.tentative
            from busy b join link_calendar l on l.id = b.link_calendar join link k on k.id = l.link
            where k.ended_at is null and k.person = any(:people)
              and b.starts < :until and b.ends > :from
            order by k.person, b.uid_hash, b.starts, b.ends desc
            """)
        .param("people", people.stream().map(PersonId::value).toArray(Long[]::new))
        // Whole days are kept in UTC.
        .param("from", from.minus(Duration.ofDays(1)).atOffset(ZoneOffset.UTC))
        .param("until", until.plus(Duration.ofDays(1)).atOffset(ZoneOffset.UTC))
        .query(
            (row, n) -> {
              LocalDate first = row.getObject(4, LocalDate.class);
              LocalDate end = row.getObject(5, LocalDate.class);
              return new Span(
                  PersonId.of(row.getLong(1)),
                  first == null
                      ? row.getObject(2, OffsetDateTime.class).toInstant()
                      : first.atStartOfDay(zone).toInstant(),
                  end == null
                      ? row.getObject(3, OffsetDateTime.class).toInstant()
                      : end.atStartOfDay(zone).toInstant(),
                  row.getBoolean(6));
            })
        .list()
        .stream()
        .filter(span -> span.starts().isBefore(until) && span.ends().isAfter(from))
        .toList();
  }

  /** How far what was read can be trusted. */
  public enum Trust {
    FRESH,
    LATE,
    UNKNOWN
  }

  /**
   * When somebody's calendars were read, by the one that was read longest ago.
   *
   * @param readAt null: not yet
   */
  public record Age(PersonId person, Instant readAt, Trust trust) {}

  public List<Age> ages(Set<PersonId> people) {
    return jdbc.sql(
            """
            select k.person,
              case when bool_or(l.read_at is null) then null else min(l.read_at) end as read_at,
              case
                when bool_or(l.read_at is null) then 'UNKNOWN'
                when min(l.read_at) > now() - :fresh * :interval * interval '1 second'
                  then 'FRESH'
                when min(l.read_at) > now() - :late * :interval * interval '1 second'
                  then 'LATE'
                else 'UNKNOWN' end as trust
            from link_calendar l join link k on k.id = l.link
            where k.ended_at is null and k.person = any(:people) and l.reads_busy
            group by k.person order by k.person
            """)
        .param("people", people.stream().map(PersonId::value).toArray(Long[]::new))
        .param("fresh", FRESH)
        .param("late", LATE)
        .param("interval", house.copying().readingInterval())
        .query(
            (row, n) ->
                new Age(
                    PersonId.of(row.getLong(1)),
                    LinkStore.moment(row, "read_at").orElse(null),
                    Trust.valueOf(row.getString(3))))
        .list();
  }
}
