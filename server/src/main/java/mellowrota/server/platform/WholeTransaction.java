package mellowrota.server.platform;

import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionCallback;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * A transaction that is done anew from its beginning where others were in the way in the database
 * (a deadlock, a row changed meanwhile); within another it is that one's to do.
 */
final class WholeTransaction extends TransactionTemplate {

  private static final long serialVersionUID = 1;

  private static final Logger LOG = LoggerFactory.getLogger(WholeTransaction.class);
  private static final int MOST_TRIES = 6;
  private static final long LONGEST_PAUSE = 20_000_000;

  WholeTransaction(PlatformTransactionManager transactions) {
    super(transactions);
  }

  @Override
  public <T> T execute(TransactionCallback<T> action) {
    for (int tried = 1; ; tried++) {
      try {
        return super.execute(action);
      } catch (ConcurrencyFailureException inTheWay) {
        if (tried == MOST_TRIES || TransactionSynchronizationManager.isActualTransactionActive()) {
          throw inTheWay;
        }
        LOG.info("a transaction is done anew tried={} since {}", tried, inTheWay.getMessage());
        LockSupport.parkNanos(ThreadLocalRandom.current().nextLong(LONGEST_PAUSE) * tried);
      }
    }
  }
}
