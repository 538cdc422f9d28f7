package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.util.Optional;
import mellowrota.core.time.Validity;

/** What somebody can, with the days on which it holds. */
@Entity
@Table(name = "person_skill")
@IdClass(SkillEntity.Key.class)
final class SkillEntity {

  record Key(Long person, String skill) {}

  @Id Long person;
  @Id String skill;

  LocalDate firstDay;
  LocalDate lastDay;

  protected SkillEntity() {}

  SkillEntity(long person, String skill) {
    this.person = person;
    this.skill = skill;
  }

  Validity days() {
    return new Validity(Optional.ofNullable(firstDay), Optional.ofNullable(lastDay));
  }
}
