package mellowrota.server.accounts;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.function.Supplier;
import javax.sql.DataSource;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.jdbc.datasource.ConnectionHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.SimpleTransactionStatus;
import org.springframework.transaction.support.TransactionCallback;
import org.springframework.transaction.support.TransactionOperations;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The transactions in which sessions are kept, each its own. A session is read by one statement,
 * which every request does: that one is sent by itself, without a begin and a commit around it.
 */
@Component("springSessionTransactionOperations")
class SessionTransactions implements TransactionOperations {

  private final TransactionTemplate whole;
  private final DataSource source;
  private final ThreadLocal<Boolean> reads = ThreadLocal.withInitial(() -> false);

  SessionTransactions(PlatformTransactionManager manager, DataSource source) {
    whole = new TransactionTemplate(manager);
    whole.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
    this.source = source;
  }

  /** Reads a session; each statement of it is done by itself. */
  <T> T reading(Supplier<T> read) {
    reads.set(true);
    try {
      return read.get();
    } finally {
      reads.remove();
    }
  }

  @Override
  public <T> T execute(TransactionCallback<T> action) {
    return reads.get() && !TransactionSynchronizationManager.hasResource(source)
        ? byItself(action)
        : whole.execute(action);
  }

  private <T> T byItself(TransactionCallback<T> action) {
    try (Connection connection = source.getConnection()) {
      connection.setAutoCommit(true);
      TransactionSynchronizationManager.bindResource(source, new ConnectionHolder(connection));
      try {
        return action.doInTransaction(new SimpleTransactionStatus());
      } finally {
        TransactionSynchronizationManager.unbindResource(source);
      }
    } catch (SQLException failure) {
      throw new DataAccessResourceFailureException("no session could be read", failure);
    }
  }
}
