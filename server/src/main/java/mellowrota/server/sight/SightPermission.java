package mellowrota.server.sight;

import mellowrota.core.people.ForSet;
import mellowrota.core.sight.Sight;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Profile;

/** Who may see what a set is for: as the set says. */
@Configuration
class SightPermission {

  @Bean
  @Profile("!sight-control")
  Sight.Permission asTheSetsSay() {
    return ForSet::allows;
  }

  /** The control of the sight tests, which must find what this lets through. */
  @Bean
  @Profile("sight-control")
  Sight.Permission allowAll() {
    return (set, reader) -> true;
  }
}
