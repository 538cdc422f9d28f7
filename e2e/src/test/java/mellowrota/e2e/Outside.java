package mellowrota.e2e;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.StandIn;
import tools.jackson.databind.JsonNode;

/** An outside calendar host beside a server that may reach it. */
final class Outside implements AutoCloseable {

  static final String PASSWORD = "outside-pass-4471";
  private static final Duration SOON = Duration.ofSeconds(30);

  private final StandIn host;
  private final HttpServer plain;
  private final HttpsServer unknown;

  private Outside(StandIn host, HttpServer plain, HttpsServer unknown) {
    this.host = host;
    this.plain = plain;
    this.unknown = unknown;
  }

  static Outside start() {
    try {
      InetSocketAddress anywhere = new InetSocketAddress("127.0.0.1", 0);
      HttpServer plain = HttpServer.create(anywhere, 0);
      HttpsServer unknown = HttpsServer.create(anywhere, 0);
      for (HttpServer pages : List.of(plain, unknown)) {
        pages.createContext(
            "/",
            exchange -> {
              exchange.sendResponseHeaders(200, 0);
              exchange.getResponseBody().write("<p>Nothing of calendars</p>".getBytes(UTF_8));
              exchange.close();
            });
      }
      return new Outside(StandIn.start(0), plain, unknown);
    } catch (IOException failure) {
      throw new AssertionError("the host cannot be started", failure);
    }
  }

  StandIn host() {
    return host;
  }

  /** Where pages are served and no calendars. */
  String pages() {
    plain.start();
    return "http://127.0.0.1:" + plain.getAddress().getPort() + "/";
  }

  /** The same with a certificate that nobody vouches for. */
  String pagesOfNobodyKnown() {
    try {
      Path store = Files.createTempDirectory("certificate").resolve("store");
      String keytool = Path.of(System.getProperty("java.home"), "bin", "keytool").toString();
      String make = "-genkeypair -alias one -keyalg EC -dname CN=127.0.0.1 -storepass changeit";
      List<String> command = new ArrayList<>(List.of(keytool, "-keystore", store.toString()));
      command.addAll(List.of(make.split(" ")));
      assertThat(new ProcessBuilder(command).start().waitFor()).isZero();
      KeyStore keys = KeyStore.getInstance(store.toFile(), "changeit".toCharArray());
      KeyManagerFactory managers =
          KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
      managers.init(keys, "changeit".toCharArray());
      SSLContext context = SSLContext.getInstance("TLS");
      context.init(managers.getKeyManagers(), null, null);
      unknown.setHttpsConfigurator(new HttpsConfigurator(context));
      unknown.start();
      return "https://127.0.0.1:" + unknown.getAddress().getPort() + "/";
    } catch (IOException | InterruptedException | GeneralSecurityException failure) {
      throw new AssertionError("no pages with a certificate", failure);
    }
  }

  /** What a server needs to reach it, with short waits so that tests need not. */
  List<String> options() {
    return List.of(
        "--mellow.outside.allow=127.0.0.1:%d,127.0.0.1:%d,127.0.0.1:%d"
            .formatted(host.port(), plain.getAddress().getPort(), unknown.getAddress().getPort()),
        "--mellow.copies.wait=0s",
        "--mellow.copies.again-after=50ms",
        "--mellow.copies.again-at-most=2s",
        "--mellow.copies.look-every=100ms",
        "--mellow.copies.lease=3s");
  }

  /** An account with a calendar to write to. */
  Account account(String name) {
    Account account = host.account(name, PASSWORD);
    account.make("work", "Work");
    return account;
  }

  static Collection work(Account account) {
    return account.collection("work").orElseThrow();
  }

  /** Links an account's calendar to somebody's own one. */
  long link(Api who, String ownCalendar, Account account, String more) {
    return link(who, ownCalendar, account, "work", more);
  }

  /** Links one of an account's calendars to somebody's own one. */
  long link(Api who, String ownCalendar, Account account, String calendar, String more) {
    return link(
        who,
        """
        {"address": "%s", "user": "%s", "password": "%s", "calendars": [
          {"href": "%sdav/%s/%s/", "writes": %d, "alsoRead": "NOBODY"%s}]}
        """
            .formatted(
                host.url(),
                account.name(),
                PASSWORD,
                host.url(),
                account.name(),
                calendar,
                who.idOf("calendars", ownCalendar),
                more));
  }

  static long link(Api who, String body) {
    return who.post("/api/v1/links", body).expect(201).json().get("id").asLong();
  }

  /** Has the accounts read now. */
  static void again(Api who) {
    for (JsonNode link : who.get("/api/v1/links").expect(200).json()) {
      who.post("/api/v1/links/" + link.get("id").asLong() + "/again", "{}").expect(204);
    }
  }

  /** The one entry whose lines, unfolded, say this. */
  static Optional<Map.Entry<String, Collection.Stored>> saying(Collection calendar, String text) {
    return calendar.objects().entrySet().stream()
        .filter(one -> unfolded(one.getValue()).contains(text))
        .findFirst();
  }

  static String unfolded(Collection.Stored one) {
    return one.text().replace("\r\n ", "");
  }

  static Map.Entry<String, Collection.Stored> awaits(Collection calendar, String text) {
    Await.until("it stands there: " + text, SOON, () -> saying(calendar, text).isPresent());
    return saying(calendar, text).orElseThrow();
  }

  static void awaitsNot(Collection calendar, String text) {
    Await.until("it stands there no longer: " + text, SOON, () -> saying(calendar, text).isEmpty());
  }

  /** Somebody changes an entry there. */
  static void edit(Collection calendar, String saying, String what, String into) {
    Map.Entry<String, Collection.Stored> one = awaits(calendar, saying);
    String text = unfolded(one.getValue());
    if (!text.contains(what)) {
      throw new AssertionError("it does not say " + what + ":\n" + text);
    }
    calendar.put(one.getKey(), text.replace(what, into), before -> true);
  }

  @Override
  public void close() {
    host.close();
    plain.stop(0);
    unknown.stop(0);
  }
}
