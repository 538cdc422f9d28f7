package mellowrota.standin;

import java.io.IOException;
import java.util.Arrays;

/** {@code standin PORT NAME:PASSWORD …}: each account has the calendars Home and Work. */
public final class Main {

  private Main() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    if (args.length < 2) {
      throw new IllegalArgumentException("wants a port and NAME:PASSWORD, once or more often");
    }
    try (StandIn standIn = StandIn.start(Integer.parseInt(args[0]))) {
      for (String one : Arrays.asList(args).subList(1, args.length)) {
        String[] parts = one.split(":", 2);
        Account account = standIn.account(parts[0], parts[1]);
        account.make("home", "Home");
        account.make("work", "Work");
      }
      Thread.currentThread().join();
    }
  }
}
