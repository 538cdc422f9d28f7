package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;

/** A team, by its name; {@link MembershipEntity} says who is in it. */
@Entity
@Table(name = "team")
final class TeamEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String name;
  String hue;
  @Version long version;

  protected TeamEntity() {}

  TeamEntity(String name, String hue) {
    this.name = name;
    this.hue = hue;
  }

  Team team() {
    return new Team(TeamId.of(id), name);
  }
}
