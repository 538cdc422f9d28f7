package mellowrota.server.deadlines.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.server.crew.NamedRows;
import mellowrota.server.deadlines.Chains;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Repository;

/** Chains and methods of notice as they are kept. */
@Repository
@RequiredArgsConstructor
public class ChainStore implements NamedRows {

  private static final String LATEST =
      """
      select new mellowrota.server.deadlines.Chains$Kept(c.id, c.name, c.no, v.text)
      from ChainEntity c join ChainVersionEntity v on v.chain = c.id and v.no = c.no
      """;

  private final EntityManager kept;

  @Override
  public Map<String, String> names() {
    return all().stream().collect(Collectors.toMap(one -> "chain " + one.id(), Chains.Kept::name));
  }

  /** By name, each as it was saved last. */
  public List<Chains.Kept> all() {
    return kept.createQuery(LATEST + " order by c.name, c.id", Chains.Kept.class).getResultList();
  }

  public Optional<Chains.Kept> find(long id) {
    return kept
        .createQuery(LATEST + " where c.id = :id", Chains.Kept.class)
        .setParameter("id", id)
        .getResultList()
        .stream()
        .findFirst();
  }

  /** The texts that chains were saved with last. */
  public List<Chains.Version> latest(Collection<Long> chains) {
    return kept
        .createQuery(
            """
            select v from ChainVersionEntity v join ChainEntity c on v.chain = c.id and v.no = c.no
            where holds(:ids, c.id)
            """,
            ChainVersionEntity.class)
        .setParameter("ids", chains.toArray(Long[]::new))
        .getResultList()
        .stream()
        .map(ChainVersionEntity::version)
        .toList();
  }

  /** Texts by their numbers. */
  public List<Chains.Version> versions(Collection<Long> ids) {
    return kept
        .createQuery("from ChainVersionEntity where holds(:ids, id)", ChainVersionEntity.class)
        .setParameter("ids", ids.toArray(Long[]::new))
        .getResultList()
        .stream()
        .map(ChainVersionEntity::version)
        .toList();
  }

  public long add(String name, Chains.Text text) {
    ChainEntity chain = new ChainEntity();
    chain.name = name;
    chain.no = 1;
    kept.persist(chain);
    kept.persist(new ChainVersionEntity(chain.id, chain.no, text));
    return chain.id;
  }

  /**
   * Keeps another version of it.
   *
   * @throws Problem where there is none such
   */
  public void revise(long id, String name, Chains.Text text) {
    ChainEntity chain = entity(id);
    chain.name = name;
    chain.no++;
    kept.persist(new ChainVersionEntity(id, chain.no, text));
  }

  /**
   * Takes it away with its versions.
   *
   * @throws Problem where there is none such
   */
  public void remove(long id) {
    ChainEntity chain = entity(id);
    kept.createQuery("from ChainVersionEntity where chain = :id", ChainVersionEntity.class)
        .setParameter("id", id)
        .getResultList()
        .forEach(kept::remove);
    kept.remove(chain);
  }

  private ChainEntity entity(long id) {
    return Optional.ofNullable(kept.find(ChainEntity.class, id)).orElseThrow(Problem::notFound);
  }

  private List<MethodEntity> methodEntities() {
    return kept.createQuery("from MethodEntity order by name", MethodEntity.class).getResultList();
  }

  /** By name. */
  public List<Chains.KeptMethod> methods() {
    return methodEntities().stream().map(MethodEntity::kept).toList();
  }

  /** In place of all there were; what is sent without its number is the one of its name, or new. */
  public void setMethods(List<Chains.KeptMethod> methods) {
    List<MethodEntity> entities = methodEntities();
    Set<MethodEntity> stay = new HashSet<>();
    for (Chains.KeptMethod one : methods) {
      MethodEntity entity =
          entities.stream()
              .filter(there -> there.is(one) && !stay.contains(there))
              .findFirst()
              .orElseGet(MethodEntity::new);
      stay.add(entity);
      entity.become(one.method());
      if (entity.id == null) {
        kept.persist(entity);
      }
    }
    entities.stream().filter(one -> !stay.contains(one)).forEach(kept::remove);
  }
}
