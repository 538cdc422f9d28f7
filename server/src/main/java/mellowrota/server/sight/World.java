package mellowrota.server.sight;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.House;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.project.Projector;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Places;
import mellowrota.core.rule.Router;
import mellowrota.core.sight.Sight;
import mellowrota.core.sight.Wordings;
import mellowrota.core.work.Details;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Place;

/** All that landing and sight depend on, on one day; immutable. */
public record World(
    long version,
    LocalDate day,
    House house,
    Crew crew,
    Places places,
    List<Place> placeList,
    MarginSettings margins,
    Calendars calendars,
    Details details,
    List<Role> roles,
    Wordings wordings,
    List<LandingRule> rules,
    Router router,
    Sight sight,
    Projector projector) {

  /** Whether a role has this number. */
  public boolean isRole(long number) {
    return number < RoleId.MOST && role(RoleId.of((int) number)).isPresent();
  }

  public Optional<Role> role(RoleId id) {
    return roles.stream().filter(role -> role.id().equals(id)).findFirst();
  }

  public Map<Long, LandingRule> rulesById() {
    return rules.stream().collect(Collectors.toMap(LandingRule::id, rule -> rule));
  }

  /** Whether any rule lands what waits for a coordinator's yes. */
  public boolean asksForYes() {
    return rules.stream().anyMatch(rule -> rule.on() && rule.afterYes());
  }

  /** The person, who must be in this world: sessions of others are ended. */
  public Person person(PersonId id) {
    return crew.person(id).orElseThrow(mellowrota.server.platform.Problem::notFound);
  }
}
