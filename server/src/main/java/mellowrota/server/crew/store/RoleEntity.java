package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.Arrays;
import java.util.stream.Collectors;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;

/** What somebody may be on a record; its rights stand with commas between them. */
@Entity
@Table(name = "role")
final class RoleEntity {

  @Id Integer number;
  String name;
  String rights;

  protected RoleEntity() {}

  RoleEntity(Role role) {
    number = role.id().value();
    name = role.name();
    rights = role.rights().stream().sorted().map(Enum::name).collect(Collectors.joining(","));
  }

  Role role() {
    return new Role(
        RoleId.of(number),
        name,
        Arrays.stream(rights.split(","))
            .filter(one -> !one.isBlank())
            .map(Role.Right::valueOf)
            .collect(Collectors.toSet()));
  }
}
