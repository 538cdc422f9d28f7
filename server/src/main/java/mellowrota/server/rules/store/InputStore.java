package mellowrota.server.rules.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.RecordId;
import org.springframework.stereotype.Repository;

/** What records read of the world, as it is kept. */
@Repository
@RequiredArgsConstructor
public class InputStore {

  private final EntityManager kept;

  /** That a record read this of the world. */
  public record Read(RecordId record, String kind, long input) {}

  /** The records that read any of these. */
  public List<RecordId> readers(String kind, Collection<Long> inputs) {
    return kept
        .createQuery(
            "select record from InputEntity where kind = :kind and holds(:inputs, input)",
            Long.class)
        .setParameter("kind", kind)
        .setParameter("inputs", inputs.toArray(Long[]::new))
        .getResultList()
        .stream()
        .map(RecordId::of)
        .toList();
  }

  /**
   * Keeps what these records read, in place of what was kept. Native: each save keeps some ten,
   * mostly as they were, which HQL would send one by one.
   */
  public void keep(Collection<RecordId> of, List<Read> reads) {
    kept.createNativeQuery(
            """
            with reads as (
                select * from unnest(:records, :kinds, :inputs) r(record, kind, input)),
              gone as (delete from record_input k where k.record = any(:of) and not exists (
                select 1 from reads r
                where r.record = k.record and r.kind = k.kind and r.input = k.input))
            insert into record_input (record, kind, input) select * from reads
            on conflict do nothing
            """)
        .setParameter("of", of.stream().map(RecordId::value).toArray(Long[]::new))
        .setParameter(
            "records", reads.stream().map(one -> one.record().value()).toArray(Long[]::new))
        .setParameter("kinds", reads.stream().map(Read::kind).toArray(String[]::new))
        .setParameter("inputs", reads.stream().map(Read::input).toArray(Long[]::new))
        .executeUpdate();
  }
}
