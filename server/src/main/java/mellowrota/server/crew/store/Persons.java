package mellowrota.server.crew.store;

import jakarta.persistence.EntityManager;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.time.Validity;
import mellowrota.server.crew.Skills;
import mellowrota.server.crew.WorkTimes.Terms;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Repository;

/** People as they are kept, what each can, and what they may be on a record. */
@Repository
@RequiredArgsConstructor
public class Persons {

  private final EntityManager kept;

  private List<PersonEntity> entities() {
    return kept.createQuery("from PersonEntity order by id", PersonEntity.class).getResultList();
  }

  /**
   * The row of somebody, to be changed.
   *
   * @throws Problem where there is nobody such
   */
  private PersonEntity entity(PersonId id) {
    return Optional.ofNullable(kept.find(PersonEntity.class, id.value()))
        .orElseThrow(Problem::notFound);
  }

  /** Everybody, those who have left too. */
  public List<Person> all() {
    return entities().stream().map(PersonEntity::person).toList();
  }

  /** Those who have left. */
  public Set<PersonId> left() {
    return kept
        .createQuery("select id from PersonEntity where standing = LEFT", Long.class)
        .getResultList()
        .stream()
        .map(PersonId::of)
        .collect(Collectors.toSet());
  }

  public Optional<Person> find(PersonId id) {
    return Optional.ofNullable(kept.find(PersonEntity.class, id.value())).map(PersonEntity::person);
  }

  public PersonId add(String name, Person.Standing standing, Person.AccountRight right) {
    PersonEntity entity = new PersonEntity(name, standing, right);
    kept.persist(entity);
    return PersonId.of(entity.id);
  }

  /** Keeps somebody who was there as they are now. */
  public void keep(Person person) {
    entity(person.id()).become(person);
  }

  /** How people title their own entries, as typed. */
  public Map<PersonId, String> ownTitles() {
    return about(one -> Optional.ofNullable(one.ownTitle));
  }

  public void setOwnTitle(PersonId id, Optional<String> title) {
    entity(id).ownTitle = title.orElse(null);
  }

  /** Of everybody about whom something is said. */
  public Map<PersonId, Terms> terms() {
    return about(
        one ->
            Optional.of(
                    new Terms(
                        Optional.ofNullable(one.zone).map(ZoneId::of),
                        Optional.ofNullable(one.contractMinutes).map(Duration::ofMinutes),
                        Optional.ofNullable(one.lastDay)))
                .filter(terms -> !terms.equals(Terms.UNSAID)));
  }

  /** Of those who have not left, the last days that are set. */
  public Map<PersonId, LocalDate> lastDays() {
    record Row(Long id, LocalDate lastDay) {}
    return kept
        .createQuery(
            """
            select id, lastDay from PersonEntity where lastDay is not null and standing <> LEFT
            """,
            Row.class)
        .getResultList()
        .stream()
        .collect(Collectors.toMap(one -> PersonId.of(one.id()), Row::lastDay));
  }

  public void leave(PersonId id) {
    entity(id).standing = Person.Standing.LEFT;
  }

  public void setTerms(PersonId id, Terms terms) {
    PersonEntity entity = entity(id);
    entity.zone = terms.zone().map(ZoneId::getId).orElse(null);
    entity.contractMinutes = terms.contract().map(one -> (int) one.toMinutes()).orElse(null);
    entity.lastDay = terms.lastDay().orElse(null);
  }

  private <T> Map<PersonId, T> about(Function<PersonEntity, Optional<T>> what) {
    Map<PersonId, T> found = new HashMap<>();
    entities().forEach(one -> what.apply(one).ifPresent(it -> found.put(PersonId.of(one.id), it)));
    return found;
  }

  /** By person; who is not named has no skill and may stand alone. */
  public Map<PersonId, Skills.Known> skills() {
    Map<Long, List<SkillEntity>> skills =
        kept.createQuery("from SkillEntity", SkillEntity.class).getResultList().stream()
            .collect(Collectors.groupingBy(one -> one.person));
    return about(
        one -> {
          Map<String, Validity> known = new TreeMap<>();
          skills
              .getOrDefault(one.id, List.of())
              .forEach(skill -> known.put(skill.skill, skill.days()));
          return Optional.of(new Skills.Known(known, one.notAlone))
              .filter(it -> !it.equals(Skills.Known.NOTHING));
        });
  }

  /** In place of what was said before. */
  public void setSkills(PersonId id, Skills.Known known) {
    entity(id).notAlone = known.notAlone();
    kept
        .createQuery("from SkillEntity where person = :person", SkillEntity.class)
        .setParameter("person", id.value())
        .getResultList()
        .stream()
        .filter(one -> !known.skills().containsKey(one.skill))
        .forEach(kept::remove);
    known.skills().forEach((skill, days) -> learn(id, skill, days));
  }

  public void learn(PersonId id, String skill, Validity days) {
    SkillEntity.Key key = new SkillEntity.Key(id.value(), skill);
    SkillEntity entity =
        Optional.ofNullable(kept.find(SkillEntity.class, key))
            .orElseGet(() -> new SkillEntity(id.value(), skill));
    entity.firstDay = days.first().orElse(null);
    entity.lastDay = days.last().orElse(null);
    kept.persist(entity);
  }

  public void lose(PersonId id, String skill) {
    Optional.ofNullable(kept.find(SkillEntity.class, new SkillEntity.Key(id.value(), skill)))
        .ifPresent(kept::remove);
  }

  /** What somebody may be on a record. */
  public List<Role> roles() {
    return kept
        .createQuery("from RoleEntity order by number", RoleEntity.class)
        .getResultList()
        .stream()
        .map(RoleEntity::role)
        .toList();
  }

  /** Puts the roles every house begins with. */
  public void addUsualRoles() {
    Role.usual().forEach(role -> kept.persist(new RoleEntity(role)));
  }
}
