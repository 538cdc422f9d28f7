package mellowrota.standin;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/** The host, on loopback. */
public final class StandIn implements AutoCloseable {

  private static final int THREADS = 64;

  private final Map<String, Account> accounts = new TreeMap<>();
  private final HttpServer server;
  private final ExecutorService threads = Executors.newFixedThreadPool(THREADS);

  private final Optional<Path> folder;

  private StandIn(HttpServer server, Optional<Path> folder) {
    this.server = server;
    this.folder = folder;
  }

  /**
   * Starts one.
   *
   * @param port 0: any that is free
   */
  public static StandIn start(int port) throws IOException {
    return start(port, Optional.empty());
  }

  /** Starts one that keeps its calendars in a folder. */
  static StandIn start(int port, Optional<Path> folder) throws IOException {
    // Answers are small; without this each of them may wait for an acknowledgement.
    System.setProperty("sun.net.httpserver.nodelay", "true");
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
    StandIn standIn = new StandIn(server, folder);
    server.createContext("/", new DavHandler(standIn));
    server.createContext("/panel", new Panel(standIn));
    server.setExecutor(standIn.threads);
    server.start();
    return standIn;
  }

  public int port() {
    return server.getAddress().getPort();
  }

  /** Where its calendars are found. */
  public String url() {
    return "http://127.0.0.1:" + port() + "/";
  }

  /** Makes an account, with one calendar that is named after nothing. */
  public Account account(String name, String password) {
    synchronized (accounts) {
      return accounts.computeIfAbsent(
          name, key -> new Account(name, password, folder.map(in -> in.resolve(name))));
    }
  }

  Optional<Account> find(String name) {
    synchronized (accounts) {
      return Optional.ofNullable(accounts.get(name));
    }
  }

  Map<String, Account> accounts() {
    synchronized (accounts) {
      return new TreeMap<>(accounts);
    }
  }

  @Override
  public void close() {
    server.stop(0);
    threads.shutdownNow();
  }
}
