package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import jakarta.persistence.EntityManagerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.orm.jpa.SharedEntityManagerCreator;

/** The session of whoever's transaction it is, to be given like any other part. */
@Configuration(proxyBeanMethods = false)
class SessionConfiguration {

  @Bean
  EntityManager session(EntityManagerFactory factory) {
    return SharedEntityManagerCreator.createSharedEntityManager(factory);
  }
}
