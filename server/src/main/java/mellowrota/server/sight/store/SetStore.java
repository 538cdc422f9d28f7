package mellowrota.server.sight.store;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.Kind;
import mellowrota.server.platform.Numbers;
import org.springframework.stereotype.Repository;

/** Details, wordings and rules as they are kept. */
@Repository
@RequiredArgsConstructor
public class SetStore {

  private final EntityManager kept;
  private final Numbers numbers;

  /**
   * A wording as it is typed.
   *
   * @param id of a fresh one: any number that no other of the set has
   */
  public record OneWording(
      long id,
      boolean fresh,
      String name,
      String title,
      String place,
      String text,
      List<String> categories,
      Optional<String> fixed) {}

  /**
   * A rule.
   *
   * @param id below 1: it gets one
   * @param sentence in JSON, as {@link mellowrota.server.sight.RuleSentences} reads it
   */
  public record OneRule(long id, boolean on, String sentence) {}

  private <T> List<T> entities(Class<T> type, String order) {
    return kept.createQuery("from " + type.getSimpleName() + " order by " + order, type)
        .getResultList();
  }

  /** In their order. */
  public List<DetailDefinition> details() {
    return entities(DetailEntity.class, "position, key").stream()
        .map(DetailEntity::definition)
        .toList();
  }

  /** By name. */
  public List<OneWording> wordings() {
    return entities(WordingEntity.class, "lower(name), id").stream()
        .map(WordingEntity::wording)
        .toList();
  }

  /** Which wording each kind has where its rule names none. */
  public Map<Kind, Long> usual() {
    Map<Kind, Long> found = new LinkedHashMap<>();
    entities(UsualWordingEntity.class, "kind").forEach(one -> found.put(one.kind, one.wording));
    return found;
  }

  /** In the order in which they are tried. */
  public List<OneRule> rules() {
    return entities(RuleEntity.class, "position, id").stream()
        .map(one -> new OneRule(one.id, one.on, one.sentence))
        .toList();
  }

  /** Keeps these in place of those there are. */
  public void writeDetails(List<DetailDefinition> details) {
    Map<String, DetailEntity> known = byKey(entities(DetailEntity.class, "key"), one -> one.key);
    int position = 0;
    for (DetailDefinition one : details) {
      DetailEntity entity =
          Optional.ofNullable(known.remove(one.key().name()))
              .orElseGet(() -> new DetailEntity(one));
      entity.become(one, position++);
      kept.persist(entity);
    }
    remove(known.values());
  }

  /**
   * Keeps these in place of those there are, and what is usual.
   *
   * @param usual by the numbers that the wordings say
   * @return each wording's number in the house by its number here
   */
  public Map<Long, Long> writeWordings(List<OneWording> wordings, Map<Kind, Long> usual) {
    Map<Long, WordingEntity> known = byKey(entities(WordingEntity.class, "id"), one -> one.id);
    // Names may change places: first out of each other's way.
    known.values().forEach(one -> one.name = "~" + one.id);
    kept.flush();
    Map<Long, Long> given = new HashMap<>();
    for (OneWording one : wordings) {
      WordingEntity entity =
          Optional.ofNullable(one.fresh() ? null : known.remove(one.id()))
              .orElseGet(
                  () -> new WordingEntity(number(one.fresh() ? 0 : one.id(), "wording_id_seq")));
      entity.become(one);
      kept.persist(entity);
      given.put(one.id(), entity.id);
    }
    writeUsual(usual, given);
    remove(known.values());
    return given;
  }

  private void writeUsual(Map<Kind, Long> usual, Map<Long, Long> given) {
    Map<Kind, UsualWordingEntity> known =
        byKey(entities(UsualWordingEntity.class, "kind"), one -> one.kind);
    usual.forEach(
        (kind, wording) -> {
          UsualWordingEntity entity =
              Optional.ofNullable(known.remove(kind)).orElseGet(() -> new UsualWordingEntity(kind));
          entity.wording = given.get(wording);
          kept.persist(entity);
        });
    remove(known.values());
  }

  /** Keeps these in place of those there are. */
  public void writeRules(List<OneRule> rules) {
    Map<Long, RuleEntity> known = byKey(entities(RuleEntity.class, "id"), one -> one.id);
    int position = 1;
    for (OneRule one : rules) {
      RuleEntity entity =
          Optional.ofNullable(known.remove(one.id()))
              .orElseGet(() -> new RuleEntity(number(one.id(), "rule_id_seq")));
      entity.position = position++;
      entity.on = one.on();
      entity.sentence = one.sentence();
      kept.persist(entity);
    }
    remove(known.values());
  }

  /** The number something comes back under, else the next one. */
  private long number(long id, String sequence) {
    return id > 0 ? id : numbers.next(sequence, 1).get(0);
  }

  private static <K, T> Map<K, T> byKey(List<T> entities, Function<T, K> key) {
    return entities.stream().collect(Collectors.toMap(key, Function.identity()));
  }

  private void remove(Collection<?> gone) {
    new ArrayList<>(gone).forEach(kept::remove);
    kept.flush();
  }
}
