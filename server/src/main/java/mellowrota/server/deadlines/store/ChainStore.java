package mellowrota.server.deadlines.store;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
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

  public long add(String name, String text) {
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
  public void revise(long id, String name, String text) {
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
  public List<Method> methods() {
    return methodEntities().stream().map(MethodEntity::method).toList();
  }

  /** In place of all there were. */
  public void setMethods(List<Method> methods) {
    Map<Name, Method> wanted = new HashMap<>();
    methods.forEach(one -> wanted.put(one.name(), one));
    for (MethodEntity one : methodEntities()) {
      Method method = wanted.remove(Name.of(one.name));
      if (method == null) {
        kept.remove(one);
      } else {
        one.become(method);
      }
    }
    wanted
        .values()
        .forEach(
            method -> {
              MethodEntity entity = new MethodEntity();
              entity.become(method);
              kept.persist(entity);
            });
  }
}
