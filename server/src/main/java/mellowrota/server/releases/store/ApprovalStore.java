package mellowrota.server.releases.store;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import org.springframework.stereotype.Repository;

/** Each yes as it is kept. */
@Repository
@RequiredArgsConstructor
public class ApprovalStore {

  private final EntityManager kept;

  /** What was kept of an entry before and after a yes. */
  public record Yes(long entry, Optional<String> before, Optional<String> after) {}

  public void add(long act, Yes yes) {
    ReleaseEntity entity = new ReleaseEntity();
    entity.act = act;
    entity.entry = yes.entry();
    entity.before = yes.before().orElse(null);
    entity.after = yes.after().orElse(null);
    kept.persist(entity);
  }

  /** What an act said yes to, by the numbers of the entries. */
  public List<Yes> of(long act) {
    return kept
        .createQuery("from ReleaseEntity where act = :act order by entry", ReleaseEntity.class)
        .setParameter("act", act)
        .getResultList()
        .stream()
        .map(
            one ->
                new Yes(one.entry, Optional.ofNullable(one.before), Optional.ofNullable(one.after)))
        .toList();
  }
}
