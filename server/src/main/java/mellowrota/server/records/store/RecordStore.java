package mellowrota.server.records.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.FieldChange;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.crew.Naming;
import org.hibernate.Session;
import org.hibernate.jpa.HibernateHints;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Records as they are kept, and their history. */
@Repository
@RequiredArgsConstructor
public class RecordStore implements Naming {

  private final EntityManager kept;

  private TypedQuery<RecordEntity> query(Collection<RecordId> ids) {
    return kept.createQuery(
            """
            from RecordEntity r left join fetch r.dates left join fetch r.rulings
              left join fetch r.tags
            where holds(:ids, r.id) order by r.id
            """,
            RecordEntity.class)
        .setParameter("ids", numbers(ids));
  }

  private static Long[] numbers(Collection<RecordId> ids) {
    return ids.stream().map(RecordId::value).toArray(Long[]::new);
  }

  /** Loads what is there of these, in the order asked for; locks the rows if they will change. */
  @Transactional
  public List<WorkRecord> load(Collection<RecordId> ids, boolean forUpdate) {
    if (ids.isEmpty()) {
      return List.of();
    }
    List<RecordEntity> found =
        forUpdate
            ? locked(ids)
            : query(ids).setHint(HibernateHints.HINT_READ_ONLY, true).getResultList();
    Map<Long, WorkRecord> records = new HashMap<>();
    found.forEach(one -> records.put(one.id, one.record()));
    if (!forUpdate) {
      // What is only read is not looked through for changes at each question.
      found.forEach(kept::detach);
    }
    return ids.stream().map(id -> records.get(id.value())).filter(Objects::nonNull).toList();
  }

  /**
   * Locks the rows in the order of their numbers. Native: HQL locks what it loads, and these are
   * loaded afterwards.
   */
  public void lock(Collection<RecordId> ids) {
    kept.unwrap(Session.class)
        .createNativeQuery(
            "select id from record where id = any(:ids) order by id for no key update", Long.class)
        .setParameter("ids", numbers(ids))
        .getResultList();
  }

  private List<RecordEntity> locked(Collection<RecordId> ids) {
    return query(ids).setLockMode(LockModeType.PESSIMISTIC_WRITE).getResultList();
  }

  @Transactional
  public Optional<WorkRecord> find(RecordId id, boolean forUpdate) {
    return load(List.of(id), forUpdate).stream().findFirst();
  }

  /** What a new record will be called. */
  public record Numbers(long id, String ref) {}

  /**
   * Takes the number under which a new record will be kept, and the ref that goes with its kind.
   */
  public Numbers reserve(Kind kind) {
    return reserve(kind, 1).get(0);
  }

  /** The same for several. Native: both in one question, which writes nothing out before. */
  public List<Numbers> reserve(Kind kind, int count) {
    String letter =
        switch (kind) {
          case JOB -> "J-";
          case TICKET -> "T-";
          case SHIFT -> "S-";
          case DEADLINE -> "D-";
        };
    return kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select nextval('record_id_seq'), :letter || nextval('ref_number')
            from generate_series(1, :count)
            """,
            Numbers.class)
        .setParameter("letter", letter)
        .setParameter("count", count)
        .getResultList();
  }

  /** Keeps a new record with the beginning of its history. */
  public void insert(
      WorkRecord record, Optional<String> source, Optional<String> sourceId, Remembered history) {
    RecordEntity entity = new RecordEntity(record, source, sourceId);
    entity.become(record);
    entity.changedAt = moment(history);
    kept.persist(entity);
    remember(record.id(), history);
  }

  /** Keeps a record that was loaded to be changed as it now is; its version rises. */
  public void write(WorkRecord record, Remembered history) {
    RecordEntity entity = kept.find(RecordEntity.class, record.id().value());
    entity.become(record);
    if (history.forThen().stream().anyMatch(set -> (set.bits() & Capacities.OFFICE) != 0)) {
      entity.changedAt = moment(history);
    }
    remember(record.id(), history);
  }

  /** What history keeps of a change: the act, and whom each field was for at the time. */
  public record Remembered(long act, Instant at, List<FieldChange> changes, List<ForSet> forThen) {}

  private static Instant moment(Remembered history) {
    return history.at().truncatedTo(ChronoUnit.MILLIS);
  }

  private void remember(RecordId record, Remembered history) {
    for (int i = 0; i < history.changes().size(); i++) {
      FieldChange change = history.changes().get(i);
      HistoryEntity entity = new HistoryEntity();
      entity.act = history.act();
      entity.record = record.value();
      entity.field = change.field();
      entity.before = change.before();
      entity.after = change.after();
      entity.forThen = history.forThen().get(i).bits();
      kept.persist(entity);
    }
  }

  /** The records that an act changed, in order. */
  public List<RecordId> changedBy(long act) {
    return ids(
        kept.createQuery(
                "select distinct record from HistoryEntity where act = :act order by record",
                Long.class)
            .setParameter("act", act));
  }

  private static List<RecordId> ids(TypedQuery<Long> query) {
    return query.getResultList().stream().map(RecordId::of).toList();
  }

  /** What an act changed of a record, in order. */
  public List<FieldChange> changes(long act, RecordId record) {
    return kept
        .createQuery(
            "from HistoryEntity where act = :act and record = :record order by id",
            HistoryEntity.class)
        .setParameter("act", act)
        .setParameter("record", record.value())
        .getResultList()
        .stream()
        .map(HistoryEntity::change)
        .toList();
  }

  /** The newest act that changed a record. */
  public Optional<Long> lastAct(RecordId record) {
    return Optional.ofNullable(
        kept.createQuery("select max(act) from HistoryEntity where record = :record", Long.class)
            .setParameter("record", record.value())
            .getSingleResult());
  }

  /** One changed field, whom it was for then, and the act. */
  public record Happened(
      long record,
      long act,
      Instant at,
      long actor,
      String kind,
      String reason,
      boolean undone,
      String field,
      String before,
      String after,
      long forThen) {

    public FieldChange change() {
      return new FieldChange(field, before, after);
    }
  }

  /** What the newest acts did to each of these records, newest first. */
  public List<Happened> history(Collection<RecordId> records, int acts) {
    return kept.createQuery(
            """
            select h.record, a.id, a.at, a.actor, a.kind, a.reason,
              exists (select 1 from ActEntity u where u.undoes = a.id), h.field, h.before, h.after,
              h.forThen
            from (select o.id as id, o.record as record, o.act as act, o.field as field,
                o.before as before, o.after as after, o.forThen as forThen,
                dense_rank() over (partition by o.record order by o.act desc) as no
              from HistoryEntity o where holds(:records, o.record)) h
            join ActEntity a on a.id = h.act
            where h.no <= :acts order by a.id desc, h.id
            """,
            Happened.class)
        .setParameter("records", numbers(records))
        .setParameter("acts", acts)
        .getResultList();
  }

  /**
   * Work names people, teams and places by their numbers. Native: HQL reads no text by patterns.
   */
  @Override
  public boolean mayName(Added added) {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select exists (select 1 from assignment where holder_kind = 'P' and holder = any(:people))
              or exists (select 1 from assignment where holder_kind = 'T' and holder = any(:teams))
              or exists (select 1 from history h
                cross join lateral regexp_matches(h.old || ' ' || h.new, '(P|T)\\|(\\d+)', 'g') m
                where h.act > :act and h.field = 'assignments'
                  and (m[1] = 'P' and cast(m[2] as bigint) = any(:people)
                    or m[1] = 'T' and cast(m[2] as bigint) = any(:teams)))
              or exists (select 1 from history h where h.act > :act
                and (h.field = 'team' and array[h.old, h.new] && cast(:teams as text[])
                  or h.field in ('place', 'uses') and cast(:places as text[])
                    && string_to_array(h.old || E'\n' || h.new, E'\n')))
            """,
            Boolean.class)
        .setParameter("act", added.act())
        .setParameter("people", added.people().toArray(Long[]::new))
        .setParameter("teams", added.teams().toArray(Long[]::new))
        .setParameter("places", added.places().toArray(Long[]::new))
        .getSingleResult();
  }
}
