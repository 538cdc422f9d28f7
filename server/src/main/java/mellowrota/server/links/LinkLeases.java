package mellowrota.server.links;

import java.util.function.Supplier;
import lombok.RequiredArgsConstructor;
import mellowrota.server.links.store.LeaseStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.outside.Host;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Keeps what is done for a link, as long as the link is still in the same hands. */
@Component
@RequiredArgsConstructor
class LinkLeases {

  private final LeaseStore turns;
  private final TransactionTemplate transaction;

  /** A link in somebody's hands. */
  static final class Lease {
    private final LinkStore.Link link;
    private final Host.Account account;
    private final String me;
    private Runnable waiting = () -> {};

    Lease(LinkStore.Link link, Host.Account account, String me) {
      this.link = link;
      this.account = account;
      this.me = me;
    }

    LinkStore.Link link() {
      return link;
    }

    Host.Account account() {
      return account;
    }

    /** Has something kept with what comes next; it may be lost with the process. */
    void keepWithNext(Runnable what) {
      waiting = what;
    }
  }

  /** Somebody else took the link over meanwhile; what we know of it is old. */
  static final class Overtaken extends RuntimeException {
    private static final long serialVersionUID = 1;

    Overtaken() {
      super("the link was taken over", null, false, false);
    }
  }

  /** Keeps something. */
  void keep(Lease round, Runnable what) {
    next(
        round,
        () -> {
          what.run();
          return true;
        });
  }

  /** Keeps what waited for it, then does what comes next, in one transaction. */
  <T> T next(Lease round, Supplier<T> what) {
    Runnable waiting = round.waiting;
    round.waiting = () -> {};
    return transaction.execute(
        status -> {
          if (!turns.isOurs(round.link.id(), round.me)) {
            throw new Overtaken();
          }
          waiting.run();
          return what.get();
        });
  }
}
