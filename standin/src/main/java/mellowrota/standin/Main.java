package mellowrota.standin;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;

/**
 * {@code standin PORT FOLDER NAME:PASSWORD[:MODE] …}: each account has the calendars Home and Work,
 * and is as the mode says from the beginning.
 */
public final class Main {

  private Main() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    if (args.length < 3) {
      throw new IllegalArgumentException(
          "wants a port, a folder, and NAME:PASSWORD once or more often");
    }
    try (StandIn standIn =
        StandIn.start(Integer.parseInt(args[0]), Optional.of(Path.of(args[1])))) {
      for (String one : Arrays.asList(args).subList(2, args.length)) {
        String[] parts = one.split(":");
        Account account = standIn.account(parts[0], parts[1]);
        account.make("work", "Work");
        account.make("home", "Home");
        if (parts.length > 2) {
          account.faults().set(Faults.Mode.valueOf(parts[2]), true);
        }
      }
      Thread.currentThread().join();
    }
  }
}
