package mellowrota.server.live;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.OpenSessions;
import mellowrota.server.platform.Asker;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.SmartLifecycle;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Hears of changes from every server process over LISTEN/NOTIFY and passes on the numbers of
 * records to those who may open them and may see something of what changed; each fetches again.
 */
@RestController
@ConditionalOnProperty(name = "mellow.live", matchIfMissing = true)
@RequiredArgsConstructor
class LiveEvents implements SmartLifecycle {

  private static final Logger LOG = LoggerFactory.getLogger(LiveEvents.class);
  private static final int POLL_MILLIS = 500;
  private static final int MOST_PER_PERSON = 8;

  private record Stream(PersonId person, String session, SseEmitter emitter) {}

  private final DataSourceProperties database;
  private final Worlds worlds;
  private final RecordStore records;
  private final RecordAccess access;
  private final OpenSessions sessions;
  private final TransactionTemplate reading;
  private final Set<Stream> streams = ConcurrentHashMap.newKeySet();
  private volatile boolean running;
  private Thread listener;

  @GetMapping(path = "/api/v1/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  @Operation(summary = "Live events: ids of what changed, to be fetched again")
  SseEmitter events(Asker asker, HttpServletRequest request) throws IOException {
    long open = streams.stream().filter(s -> s.person().equals(asker.person())).count();
    if (open >= MOST_PER_PERSON) {
      throw mellowrota.server.platform.Problem.of(
          429, "too-many-streams", say("live.close-some-of-your"));
    }
    SseEmitter emitter = new SseEmitter(0L);
    Stream stream = new Stream(asker.person(), request.getSession(false).getId(), emitter);
    emitter.onCompletion(() -> streams.remove(stream));
    emitter.onTimeout(() -> streams.remove(stream));
    emitter.onError(error -> streams.remove(stream));
    streams.add(stream);
    emitter.send(SseEmitter.event().name("ready").data("{}"));
    return emitter;
  }

  /** Streams of sessions that have ended, or of whoever may no longer sign in, end too. */
  private void endThoseOfNobody() {
    if (streams.isEmpty()) {
      return;
    }
    Set<String> open = sessions.open(streams.stream().map(Stream::session).toList());
    streams.stream()
        .filter(stream -> !open.contains(stream.session()))
        .forEach(stream -> stream.emitter().complete());
    streams.removeIf(stream -> !open.contains(stream.session()));
  }

  @Scheduled(fixedDelay = 15_000)
  void beat() {
    endThoseOfNobody();
    streams.forEach(stream -> send(stream, SseEmitter.event().comment("here")));
  }

  @Override
  public void start() {
    running = true;
    listener = new Thread(this::listen, "live-events");
    listener.setDaemon(true);
    listener.start();
  }

  /** Ends the streams first, so that the web server's own stopping need not wait for them. */
  @Override
  public void stop() {
    running = false;
    streams.forEach(stream -> stream.emitter().complete());
    streams.clear();
    listener.interrupt();
  }

  @Override
  public boolean isRunning() {
    return running;
  }

  /** Later to start and earlier to stop than the web server. */
  @Override
  public int getPhase() {
    return Integer.MAX_VALUE;
  }

  private void listen() {
    while (running) {
      try (Connection connection =
              DriverManager.getConnection(
                  database.determineUrl(),
                  database.determineUsername(),
                  database.determinePassword());
          Statement statement = connection.createStatement()) {
        statement.execute("listen " + Acts.CHANNEL);
        // Whatever was missed while nobody listened: let everybody look again.
        streams.forEach(stream -> send(stream, world()));
        while (running) {
          passAll(connection.unwrap(PGConnection.class).getNotifications(POLL_MILLIS));
        }
      } catch (SQLException lost) {
        if (running) {
          LOG.warn("live events lost the database; trying again sqlstate={}", lost.getSQLState());
          pause();
        }
      }
    }
  }

  private void passAll(PGNotification[] notices) {
    if (notices != null) {
      for (PGNotification notice : notices) {
        pass(notice.getParameter());
      }
    }
  }

  private static void pause() {
    try {
      Thread.sleep(1000);
    } catch (InterruptedException stopping) {
      Thread.currentThread().interrupt();
    }
  }

  private static SseEmitter.SseEventBuilder world() {
    return SseEmitter.event().name("world").data("{}");
  }

  private void pass(String notice) {
    if (streams.isEmpty()) {
      return;
    }
    if (notice.equals("world")) {
      endThoseOfNobody();
      streams.forEach(stream -> send(stream, world()));
      return;
    }
    try {
      String[] parts = notice.split(":");
      pass(RecordId.of(Long.parseLong(parts[0])), Long.parseLong(parts[1]));
    } catch (RuntimeException failed) {
      LOG.error("a live event failed error={}", failed.getClass().getName());
    }
  }

  private void pass(RecordId id, long bits) {
    reading.executeWithoutResult(
        status -> {
          World world = worlds.now();
          WorkRecord record = records.find(id, false).orElse(null);
          if (record == null) {
            return;
          }
          for (Stream stream : streams) {
            boolean tell =
                world
                    .crew()
                    .person(stream.person())
                    .map(person -> access.standing(world, person, record))
                    .filter(s -> s.opens() && (s.capacities().bits() & bits) != 0)
                    .isPresent();
            if (tell) {
              send(stream, SseEmitter.event().name("record").data("{\"id\":" + id.value() + "}"));
            }
          }
        });
  }

  private void send(Stream stream, SseEmitter.SseEventBuilder event) {
    try {
      stream.emitter().send(event);
    } catch (IOException | IllegalStateException gone) {
      streams.remove(stream);
      LOG.debug("a live stream ended", gone);
    }
  }
}
