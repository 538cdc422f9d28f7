package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.time.LocalDate;

/** What somebody can, with the last day on which it holds if it ends. */
@Entity
@Table(name = "person_skill")
@IdClass(SkillEntity.Key.class)
final class SkillEntity {

  record Key(Long person, String skill) {}

  @Id Long person;
  @Id String skill;

  LocalDate lastDay;

  protected SkillEntity() {}

  SkillEntity(long person, String skill) {
    this.person = person;
    this.skill = skill;
  }
}
