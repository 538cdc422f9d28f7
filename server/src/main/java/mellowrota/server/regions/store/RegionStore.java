package mellowrota.server.regions.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingDays.Holiday;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.NamedRows;
import mellowrota.server.platform.Problem;
import mellowrota.server.regions.Regions;
import org.springframework.stereotype.Repository;

/** Regions and closures as they are kept. */
@Repository
@RequiredArgsConstructor
public class RegionStore implements NamedRows {

  private final EntityManager kept;

  @Override
  public Map<String, String> names() {
    return all().stream()
        .collect(Collectors.toMap(one -> "region " + one.id(), Regions.Kept::name));
  }

  /** By name. */
  public List<Regions.Kept> all() {
    return kept
        .createQuery("from RegionEntity order by name", RegionEntity.class)
        .getResultList()
        .stream()
        .map(RegionEntity::region)
        .toList();
  }

  public long add(String name, Optional<WorkingWeek> week) {
    RegionEntity entity = new RegionEntity();
    entity.become(name, week, List.of());
    kept.persist(entity);
    return entity.id;
  }

  /**
   * Says a region anew.
   *
   * @throws Problem where there is none such
   */
  public void set(long id, String name, Optional<WorkingWeek> week, Collection<Holiday> holidays) {
    entity(id).become(name, week, holidays);
  }

  /**
   * Takes a region away, its holidays too.
   *
   * @throws Problem where there is none such
   */
  public void remove(long id) {
    kept.remove(entity(id));
  }

  private RegionEntity entity(long id) {
    return Optional.ofNullable(kept.find(RegionEntity.class, id)).orElseThrow(Problem::notFound);
  }

  /** By place; without one: of the whole house. */
  public Map<Optional<PlaceId>, List<WorkingDays.Closure>> closures() {
    return kept
        .createQuery("from ClosureEntity order by firstDay, id", ClosureEntity.class)
        .getResultList()
        .stream()
        .collect(
            Collectors.groupingBy(
                ClosureEntity::at,
                Collectors.mapping(ClosureEntity::closure, Collectors.toList())));
  }

  /** In place of what was closed there before. */
  public void setClosures(Optional<PlaceId> place, List<WorkingDays.Closure> closures) {
    kept.createQuery("from ClosureEntity", ClosureEntity.class).getResultList().stream()
        .filter(one -> one.at().equals(place))
        .forEach(kept::remove);
    closures.forEach(one -> kept.persist(new ClosureEntity(place, one)));
  }
}
