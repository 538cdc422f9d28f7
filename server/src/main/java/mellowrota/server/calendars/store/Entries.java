package mellowrota.server.calendars.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.work.RecordId;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** What others ask of entries. */
@Repository
@RequiredArgsConstructor
public class Entries {

  private final EntityManager kept;

  /**
   * An entry, by which it is known.
   *
   * @param asksSince since when it waits for a yes; null where it does not
   * @param released what readers keep until then, as {@link
   *     mellowrota.server.calendars.ReleasedText} reads it; null: nothing
   */
  public record Known(long id, EntryKey key, String uid, Instant asksSince, String released) {

    Known(
        Long id,
        Long record,
        Integer visit,
        Long calendar,
        Family family,
        String uid,
        Instant asksSince,
        String released) {
      this(id, EntryEntity.key(record, visit, calendar, family), uid, asksSince, released);
    }
  }

  /** Of these, in the order of their numbers. */
  public List<Known> find(Collection<Long> ids) {
    return kept.createQuery(
            """
            select id, record, visit, calendar, family, uid, asksSince, released
            from EntryEntity where holds(:ids, id) order by id
            """,
            Known.class)
        .setParameter("ids", ids.toArray(Long[]::new))
        .getResultList();
  }

  /** By their numbers. */
  public Map<Long, Known> byId(Collection<Long> ids) {
    Map<Long, Known> found = new HashMap<>();
    find(ids).forEach(one -> found.put(one.id(), one));
    return found;
  }

  /** Of how many records these are. */
  public long countRecords(Collection<Long> ids) {
    return kept.createQuery(
            "select count(distinct record) from EntryEntity where holds(:ids, id)", Long.class)
        .setParameter("ids", ids.toArray(Long[]::new))
        .getSingleResult();
  }

  /** How many stand on a calendar. */
  public long standing(CalendarId calendar) {
    return kept.createQuery(
            "select count(*) from EntryEntity where calendar = :calendar and state = LIVE",
            Long.class)
        .setParameter("calendar", calendar.value())
        .getSingleResult();
  }

  /** The records of what stands on a calendar and ends then or later, in order. */
  public List<RecordId> records(CalendarId calendar, Instant from) {
    return kept
        .createQuery(
            """
            select distinct record from EntryEntity
            where calendar = :calendar and state = LIVE and ends >= :from order by record
            """,
            Long.class)
        .setParameter("calendar", calendar.value())
        .setParameter("from", from)
        .getResultList()
        .stream()
        .map(RecordId::of)
        .toList();
  }

  /** The numbers of all entries of a record there ever were. */
  public List<Long> of(RecordId record) {
    return kept.createQuery("select id from EntryEntity where record = :record", Long.class)
        .setParameter("record", record.value())
        .getResultList();
  }

  /** Those of these records of which an entry stands in one of these ways of reading. */
  public Set<RecordId> standIn(Collection<RecordId> records, Long[] renderings) {
    Set<RecordId> found = new HashSet<>();
    kept.createQuery(
            """
            select distinct e.record from EntryEntity e join FaceEntity f on f.entry = e.id
            where holds(:records, e.record) and f.live = true and holds(:renderings, f.rendering)
            """,
            Long.class)
        .setParameter("records", records.stream().map(RecordId::value).toArray(Long[]::new))
        .setParameter("renderings", renderings)
        .getResultList()
        .forEach(id -> found.add(RecordId.of(id)));
    return found;
  }

  /** On which calendars entries of these records stand, by their numbers. */
  public Map<Long, Set<CalendarId>> calendars(Collection<RecordId> records) {
    record Stands(long record, long calendar) {}
    Map<Long, Set<CalendarId>> found = new HashMap<>();
    kept.createQuery(
            """
            select record, calendar from EntryEntity
            where holds(:records, record) and state = LIVE
            """,
            Stands.class)
        .setParameter("records", records.stream().map(RecordId::value).toArray(Long[]::new))
        .getResultList()
        .forEach(
            one ->
                found
                    .computeIfAbsent(one.record(), key -> new HashSet<>())
                    .add(CalendarId.of(one.calendar())));
    return found;
  }

  /** The contents of all faces of a record there ever were. */
  public List<String> contents(RecordId record) {
    return kept.createQuery(
            """
            select f.content from FaceEntity f join EntryEntity e on e.id = f.entry
            where e.record = :record
            """,
            String.class)
        .setParameter("record", record.value())
        .getResultList();
  }

  /** Whether an entry of ours has this UID. */
  public boolean isOurs(String uid) {
    return kept.createQuery("select count(*) from EntryEntity where uid = :uid", Long.class)
            .setParameter("uid", uid)
            .getSingleResult()
        > 0;
  }

  /** Of which record an entry is, gone or not. */
  public Optional<RecordId> recordOf(String uid) {
    return kept
        .createQuery("select record from EntryEntity where uid = :uid", Long.class)
        .setParameter("uid", uid)
        .getResultList()
        .stream()
        .findFirst()
        .map(RecordId::of);
  }

  /** That a rule lands entries on a calendar. */
  public record Lands(long calendar, long rule) {}

  /** Of what touches a span. Native: HQL cannot take a column's text apart. */
  public List<Lands> landing(Instant from, Instant until) {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select distinct e.calendar, cast(r.rule as bigint)
            from entry e, unnest(string_to_array(e.rules, ',')) r(rule)
            where e.state = 'LIVE' and e.starts < :until and e.ends > :from order by 1, 2
            """,
            Lands.class)
        .setParameter("from", from)
        .setParameter("until", until)
        .getResultList();
  }

  /** How many entries stand by a rule, and on how many calendars. */
  public record ByRule(long rule, long entries, int calendars) {}

  /** Of each rule, in their order. Native: HQL cannot take a column's text apart. */
  public List<ByRule> byRule() {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select cast(r.rule as bigint), count(*), cast(count(distinct e.calendar) as integer)
            from entry e, unnest(string_to_array(e.rules, ',')) r(rule)
            where e.state = 'LIVE' group by r.rule order by 1
            """,
            ByRule.class)
        .getResultList();
  }
}
