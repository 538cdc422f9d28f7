package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import jakarta.persistence.EntityManagerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.orm.jpa.SharedEntityManagerCreator;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The session of whoever's transaction it is, and transactions for what has no method of its own,
 * to be given like any other part.
 */
@Configuration(proxyBeanMethods = false)
class SessionConfiguration {

  @Bean
  EntityManager session(EntityManagerFactory factory) {
    return SharedEntityManagerCreator.createSharedEntityManager(factory);
  }

  /** What changes something; done anew where others were in the way. */
  @Bean
  TransactionTemplate transaction(PlatformTransactionManager transactions) {
    return new WholeTransaction(transactions);
  }

  /** What reads all as of one moment. */
  @Bean
  TransactionTemplate reading(PlatformTransactionManager transactions) {
    TransactionTemplate reading = new TransactionTemplate(transactions);
    reading.setReadOnly(true);
    reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    return reading;
  }
}
