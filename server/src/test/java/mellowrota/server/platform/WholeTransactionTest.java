package mellowrota.server.platform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.springframework.dao.CannotAcquireLockException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.AbstractPlatformTransactionManager;
import org.springframework.transaction.support.DefaultTransactionStatus;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What is done anew, as a whole, and what is not. */
public class WholeTransactionTest {

  /** Tells what it was asked to do. */
  private static final class Told extends AbstractPlatformTransactionManager {
    private static final long serialVersionUID = 1;

    private final transient List<String> told = new ArrayList<>();
    private boolean open;

    @Override
    protected Object doGetTransaction() {
      return told;
    }

    @Override
    protected boolean isExistingTransaction(Object transaction) {
      return open;
    }

    @Override
    protected void doBegin(Object transaction, TransactionDefinition definition) {
      open = true;
      told.add("begin");
    }

    @Override
    protected void doCommit(DefaultTransactionStatus status) {
      told.add("commit");
    }

    @Override
    protected void doRollback(DefaultTransactionStatus status) {
      told.add("roll back");
    }

    @Override
    protected void doSetRollbackOnly(DefaultTransactionStatus status) {
      told.add("spoilt");
    }

    @Override
    protected void doCleanupAfterCompletion(Object transaction) {
      open = false;
    }
  }

  private Told database;
  private WholeTransaction transaction;
  private int done;

  @BeforeMethod
  public void begin() {
    database = new Told();
    transaction = new WholeTransaction(database);
    done = 0;
  }

  /** Fails so many times. */
  private int failing(int times) {
    done++;
    if (done <= times) {
      throw new CannotAcquireLockException("deadlock detected");
    }
    return done;
  }

  @Test
  public void whoMetAnotherBeginsAnew() {
    assertThat(transaction.<Integer>execute(status -> failing(2))).isEqualTo(3);
    assertThat(database.told)
        .containsExactly("begin", "roll back", "begin", "roll back", "begin", "commit");
  }

  @Test
  public void whoMeetsOthersAgainAndAgainHearsOfIt() {
    assertThatThrownBy(() -> transaction.execute(status -> failing(100)))
        .isInstanceOf(CannotAcquireLockException.class);
    assertThat(done).isEqualTo(6);
  }

  @Test
  public void whatIsWrongIsNotDoneAnew() {
    assertThatThrownBy(
            () ->
                transaction.execute(
                    status -> {
                      done++;
                      throw new DataIntegrityViolationException("wrong");
                    }))
        .isInstanceOf(DataIntegrityViolationException.class);
    assertThat(done).isEqualTo(1);
  }

  /** The inner one is spoilt; only the whole can begin anew. */
  @Test
  public void withinAnotherTheWholeIsDoneAnew() {
    int answer =
        transaction.<Integer>execute(status -> transaction.<Integer>execute(in -> failing(1)));
    assertThat(answer).isEqualTo(2);
    assertThat(database.told).containsExactly("begin", "spoilt", "roll back", "begin", "commit");
  }
}
