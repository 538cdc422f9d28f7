package mellowrota.server.cover.store;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.server.cover.Duties;
import mellowrota.server.crew.NamedRows;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Repository;

/** Duties as they are kept. */
@Repository
@RequiredArgsConstructor
public class DutyStore implements NamedRows {

  private final EntityManager kept;

  @Override
  public Map<String, String> names() {
    return all().stream().collect(Collectors.toMap(one -> "duty " + one.id(), Duties.Kept::name));
  }

  /** By name. */
  public List<Duties.Kept> all() {
    return kept
        .createQuery("from DutyEntity order by name", DutyEntity.class)
        .getResultList()
        .stream()
        .map(DutyEntity::duty)
        .toList();
  }

  /** Keeps a new one; its number is given. */
  public long add(Duties.Kept wanted) {
    DutyEntity entity = new DutyEntity();
    entity.become(wanted);
    kept.persist(entity);
    return entity.id;
  }

  /**
   * Keeps one as it is now.
   *
   * @throws Problem where there is none such
   */
  public void keep(Duties.Kept wanted) {
    entity(wanted.id()).become(wanted);
  }

  /**
   * Takes one out.
   *
   * @throws Problem where there is none such
   */
  public void remove(long id) {
    kept.remove(entity(id));
  }

  private DutyEntity entity(long id) {
    return Optional.ofNullable(kept.find(DutyEntity.class, id)).orElseThrow(Problem::notFound);
  }
}
