package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import lombok.RequiredArgsConstructor;
import org.flywaydb.core.api.callback.Callback;
import org.flywaydb.core.api.callback.Context;
import org.flywaydb.core.api.callback.Event;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** What a start is at, in a file, for whoever waits for it: one line that is written over. */
@Component
@RequiredArgsConstructor
public class Progress implements Callback {

  @Value("${mellow.progress:}")
  private final String file;

  public void at(String words) {
    if (file.isEmpty()) {
      return;
    }
    try {
      Path fresh = Path.of(file + ".new");
      Files.writeString(fresh, words + "\n");
      Files.move(fresh, Path.of(file), StandardCopyOption.ATOMIC_MOVE);
    } catch (IOException cannot) {
      throw new UncheckedIOException("cannot say what the start is at", cannot);
    }
  }

  // ---- Told by the migrations of the database --------------------------------------------------

  @Override
  public boolean supports(Event event, Context context) {
    return event == Event.BEFORE_EACH_MIGRATE || event == Event.AFTER_MIGRATE;
  }

  @Override
  public boolean canHandleInTransaction(Event event, Context context) {
    return true;
  }

  @Override
  public void handle(Event event, Context context) {
    at(
        event == Event.AFTER_MIGRATE || context.getMigrationInfo() == null
            ? say("platform.starting-the-server")
            : say("platform.migrating-the-database-to", context.getMigrationInfo().getVersion()));
  }

  @Override
  public String getCallbackName() {
    return "progress";
  }
}
