package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import java.util.List;
import lombok.RequiredArgsConstructor;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** Numbers of sequences, for what has to know its number before it is kept. */
@Repository
@RequiredArgsConstructor
public class Numbers {

  private final EntityManager kept;

  /** The next ones, in order. Native: HQL has no sequence that belongs to no entity. */
  public List<Long> next(String sequence, int many) {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            "select nextval(cast(:sequence as regclass)) from generate_series(1, :many)",
            Long.class)
        .setParameter("sequence", sequence)
        .setParameter("many", many)
        .getResultList();
  }
}
