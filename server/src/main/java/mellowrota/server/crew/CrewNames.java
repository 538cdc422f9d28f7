package mellowrota.server.crew;

import java.util.HashMap;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.server.crew.store.HouseStore;
import org.springframework.stereotype.Component;

/** What people, teams, places and roles are called. */
@Component
@RequiredArgsConstructor
class CrewNames implements NamedRows {

  private final HouseStore house;

  @Override
  public Map<String, String> names() {
    Map<String, String> names = new HashMap<>();
    house.people().forEach(one -> names.put("person " + one.id().value(), one.name()));
    house.teams().forEach(one -> names.put("team " + one.id().value(), one.name()));
    house.places().forEach(one -> names.put("place " + one.id().value(), one.name()));
    house.roles().forEach(one -> names.put("role " + one.id().value(), one.name()));
    return names;
  }
}
