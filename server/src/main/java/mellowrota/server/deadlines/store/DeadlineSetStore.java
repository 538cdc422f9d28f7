package mellowrota.server.deadlines.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import jakarta.persistence.TypedQuery;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.RecordId;
import mellowrota.server.deadlines.KeptSet;
import org.springframework.stereotype.Repository;

/** Sets of deadlines as they are kept. */
@Repository
@RequiredArgsConstructor
public class DeadlineSetStore {

  private final EntityManager kept;

  /** The next ones after a number, those that were taken off left out. */
  public List<Long> after(long number, int most) {
    return kept.createQuery(
            """
            select s.id from DeadlineSetEntity s join DeadlineSetVersionEntity v on v.set = s.id and v.no = s.no
            where s.id > :number and not v.isOff order by s.id
            """,
            Long.class)
        .setParameter("number", number)
        .setMaxResults(most)
        .getResultList();
  }

  /** Those of whose deadlines one of these records is, or whose key date belongs to one. */
  public List<Long> around(Collection<RecordId> records) {
    return kept.createQuery(
            """
            select s.id from DeadlineSetEntity s join DeadlineSetVersionEntity v on v.set = s.id and v.no = s.no
            where not v.isOff and (holds(:records, s.record)
              or exists (select 1 from v.steps p where holds(:records, p.record)))
            order by s.id
            """,
            Long.class)
        .setParameter("records", records.stream().map(RecordId::value).toArray(Long[]::new))
        .getResultList();
  }

  /** What is there of these, by number; locked in that order if they will change. */
  public List<KeptSet> load(Collection<Long> ids, boolean forUpdate) {
    Long[] numbers = ids.toArray(Long[]::new);
    TypedQuery<DeadlineSetEntity> query =
        kept.createQuery(
                "from DeadlineSetEntity where holds(:ids, id) order by id", DeadlineSetEntity.class)
            .setParameter("ids", numbers);
    if (forUpdate) {
      query.setLockMode(LockModeType.PESSIMISTIC_WRITE);
    }
    List<DeadlineSetEntity> sets = query.getResultList();
    Map<Long, KeptSet.State> states = new HashMap<>();
    kept.createQuery(
            """
            select v from DeadlineSetVersionEntity v join DeadlineSetEntity s on v.set = s.id and v.no = s.no
              left join fetch v.steps
            where holds(:ids, s.id)
            """,
            DeadlineSetVersionEntity.class)
        .setParameter("ids", numbers)
        .getResultList()
        .forEach(one -> states.put(one.set, one.state()));
    return sets.stream()
        .map(one -> new KeptSet(one.id, one.chain, one.no, one.to(), states.get(one.id)))
        .toList();
  }

  /** A version of a set; empty: before it was made. */
  public Optional<KeptSet.State> version(long set, int no) {
    return kept
        .createQuery(
            "from DeadlineSetVersionEntity where set = :set and no = :no",
            DeadlineSetVersionEntity.class)
        .setParameter("set", set)
        .setParameter("no", no)
        .getResultList()
        .stream()
        .map(DeadlineSetVersionEntity::state)
        .findFirst();
  }

  /** The sets that an act made or changed. */
  public List<Long> changedBy(long act) {
    return kept.createQuery(
            "select set from DeadlineSetVersionEntity where act = :act order by set", Long.class)
        .setParameter("act", act)
        .getResultList();
  }

  /** How many sets a chain has, those that were taken off too. */
  public long count(long chain) {
    return kept.createQuery(
            "select count(*) from DeadlineSetEntity where chain = :chain", Long.class)
        .setParameter("chain", chain)
        .getSingleResult();
  }

  public long add(long chain, KeptSet.Belongs to, KeptSet.State state) {
    DeadlineSetEntity set = new DeadlineSetEntity(chain, to);
    set.no = 1;
    kept.persist(set);
    kept.persist(new DeadlineSetVersionEntity(set.id, set.no, state));
    return set.id;
  }

  /** Keeps what an act made of one that was loaded to be changed. */
  public void write(KeptSet set, KeptSet.State state) {
    DeadlineSetEntity entity = kept.find(DeadlineSetEntity.class, set.id());
    entity.no++;
    kept.persist(new DeadlineSetVersionEntity(set.id(), entity.no, state));
  }
}
