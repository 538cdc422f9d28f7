package mellowrota.server.outside;

import static mellowrota.server.platform.Words.say;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.net.ssl.SSLException;
import org.apache.hc.client5.http.ConnectTimeoutException;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.HttpHostConnectException;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.io.SocketConfig;
import org.apache.hc.core5.http.io.entity.ByteArrayEntity;
import org.apache.hc.core5.util.TimeValue;
import org.apache.hc.core5.util.Timeout;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Sends requests to outside hosts, each once: what is tried again is decided by whoever sends it.
 * Redirects are followed by hand, each checked like the first address.
 */
@Component
class OutsideHttp implements DisposableBean {

  private static final int MOST_REDIRECTS = 5;
  private static final int MOST_OCTETS = 20_000_000;
  private static final int CONNECTIONS_PER_HOST = 64;

  private final Guard guard;
  private final Duration exchange;
  private final CloseableHttpClient client;

  OutsideHttp(
      Guard guard,
      @Value("${mellow.outside.connect-within:10s}") Duration connect,
      @Value("${mellow.outside.answer-within:30s}") Duration answer) {
    this.guard = guard;
    // All of an exchange, with what it is led on to.
    exchange = answer.multipliedBy(4);
    Timeout within = Timeout.of(answer);
    client =
        HttpClients.custom()
            .setConnectionManager(
                PoolingHttpClientConnectionManagerBuilder.create()
                    .setDnsResolver(new Checked(guard))
                    .setMaxConnPerRoute(CONNECTIONS_PER_HOST)
                    .setMaxConnTotal(4 * CONNECTIONS_PER_HOST)
                    .setDefaultSocketConfig(
                        SocketConfig.custom().setSoTimeout(within).setTcpNoDelay(true).build())
                    .setDefaultConnectionConfig(
                        ConnectionConfig.custom()
                            .setConnectTimeout(Timeout.of(connect))
                            .setSocketTimeout(within)
                            .setValidateAfterInactivity(TimeValue.ofSeconds(1))
                            .setTimeToLive(TimeValue.ofMinutes(2))
                            .build())
                    .build())
            .setDefaultRequestConfig(
                RequestConfig.custom()
                    .setResponseTimeout(within)
                    .setConnectionRequestTimeout(within)
                    .setRedirectsEnabled(false)
                    .build())
            .disableAutomaticRetries()
            .disableRedirectHandling()
            .disableCookieManagement()
            .disableAuthCaching()
            .setUserAgent("Mellow Rota")
            .build();
  }

  /** Every connection goes to addresses that were checked for it. */
  private record Checked(Guard guard) implements DnsResolver {
    @Override
    public InetAddress[] resolve(String host) throws UnknownHostException {
      return guard.addresses(host, -1).toArray(InetAddress[]::new);
    }

    @Override
    public List<InetSocketAddress> resolve(String host, int port) throws UnknownHostException {
      return guard.addresses(host, port).stream()
          .map(address -> new InetSocketAddress(address, port))
          .toList();
    }

    @Override
    public String resolveCanonicalHostname(String host) {
      return host;
    }
  }

  /**
   * What is asked.
   *
   * @param body none: an empty one
   */
  record Ask(String method, URI address, Map<String, String> headers, Optional<Body> body) {
    record Body(String type, String text) {}
  }

  /**
   * An answer.
   *
   * @param address that of the request which was answered, after redirects
   */
  record Answer(int status, URI address, Map<String, String> headers, String body) {
    Optional<String> header(String name) {
      return Optional.ofNullable(headers.get(name.toLowerCase(java.util.Locale.ROOT)));
    }
  }

  /**
   * Sends it, following redirects; any status is an answer but those that say try later. The
   * password goes to the host and port that the account names, and nowhere else.
   */
  Answer send(Ask ask, Host.Account account) throws OutsideFault {
    long deadline = System.nanoTime() + exchange.toNanos();
    Ask now = ask;
    for (int i = 0; i <= MOST_REDIRECTS; i++) {
      if (!Origin.isSame(account.address(), now.address())) {
        throw OutsideFault.elsewhere(guard.check(now.address()));
      }
      Answer answer = once(now, account.user(), account.password(), deadline);
      Optional<String> location = answer.header("location");
      if (answer.status() < 301 || answer.status() > 308 || location.isEmpty()) {
        return answered(answer);
      }
      URI next;
      try {
        next = now.address().resolve(location.get().strip());
      } catch (IllegalArgumentException fault) {
        throw OutsideFault.of(
            OutsideFault.Kind.NOT_CALENDARS, say("outside.the-server-redirects-to"));
      }
      guard.check(next);
      now = new Ask(now.method(), next, now.headers(), now.body());
    }
    throw OutsideFault.of(OutsideFault.Kind.NOT_CALENDARS, say("outside.the-server-redirects-in"));
  }

  private Answer once(Ask ask, String user, String password, long deadline) throws OutsideFault {
    guard.check(ask.address());
    HttpUriRequestBase request = new HttpUriRequestBase(ask.method(), ask.address());
    ask.headers().forEach(request::setHeader);
    String both = user + ":" + password;
    request.setHeader(
        "Authorization",
        "Basic " + Base64.getEncoder().encodeToString(both.getBytes(StandardCharsets.UTF_8)));
    ask.body()
        .ifPresent(
            body ->
                request.setEntity(
                    new ByteArrayEntity(
                        body.text().getBytes(StandardCharsets.UTF_8),
                        ContentType.parse(body.type()))));
    try {
      return client.execute(request, response -> read(ask.address(), response, deadline));
    } catch (Guard.InsideException inside) {
      throw OutsideFault.of(
          OutsideFault.Kind.ADDRESS,
          say("outside.is-inside-this-network", ask.address().getHost()));
    } catch (UnknownHostException unknown) {
      throw OutsideFault.of(
          OutsideFault.Kind.NAME, say("outside.there-is-no-server", ask.address().getHost()));
    } catch (SSLException tls) {
      throw OutsideFault.of(
          OutsideFault.Kind.TLS,
          say("outside.a-secure-connection-to", ask.address().getHost(), plain(tls)));
    } catch (HttpHostConnectException | ConnectTimeoutException nobody) {
      throw OutsideFault.of(
          OutsideFault.Kind.NO_ANSWER, say("outside.nobody-answers-at", ask.address().getHost()));
    } catch (SocketTimeoutException late) {
      throw OutsideFault.of(OutsideFault.Kind.ANSWER_LOST, say("outside.the-server-did-not"));
    } catch (IOException lost) {
      throw OutsideFault.of(
          OutsideFault.Kind.ANSWER_LOST, say("outside.the-connection-ended-before"));
    }
  }

  /** The library's words, without what could be an answer's content. */
  private static String plain(SSLException fault) {
    String words = String.valueOf(fault.getMessage()).replaceAll("[^A-Za-z0-9 .,:-]", "");
    return words.length() > 120 ? words.substring(0, 120) : words;
  }

  private static Answer read(URI address, ClassicHttpResponse response, long deadline)
      throws IOException {
    Map<String, String> headers = new java.util.HashMap<>();
    for (Header one : response.getHeaders()) {
      headers.putIfAbsent(one.getName().toLowerCase(java.util.Locale.ROOT), one.getValue());
    }
    String body = "";
    if (response.getEntity() != null) {
      try (InputStream in = response.getEntity().getContent()) {
        body = text(in, deadline);
      }
    }
    return new Answer(response.getCode(), address, headers, body);
  }

  /** An answer that trickles is cut off when its time is over. */
  private static String text(InputStream in, long deadline) throws IOException {
    ByteArrayOutputStream octets = new ByteArrayOutputStream();
    byte[] some = new byte[16_384];
    for (int read = in.read(some); read >= 0; read = in.read(some)) {
      octets.write(some, 0, read);
      if (octets.size() > MOST_OCTETS) {
        throw new IOException("the answer is too large");
      }
      if (System.nanoTime() - deadline > 0) {
        throw new SocketTimeoutException("the answer takes too long");
      }
    }
    return octets.toString(StandardCharsets.UTF_8);
  }

  private static Answer answered(Answer answer) throws OutsideFault {
    switch (answer.status()) {
      case 401 ->
          throw OutsideFault.of(
              OutsideFault.Kind.PASSWORD, say("outside.the-server-does-not-accept-this"));
      case 429 ->
          throw OutsideFault.later(
              OutsideFault.Kind.TOO_MANY, say("outside.the-server-asks-for"), retryAfter(answer));
      case 507 ->
          throw OutsideFault.of(OutsideFault.Kind.QUOTA, say("outside.the-server-has-no-room"));
      default -> {
        if (answer.status() >= 500 && answer.status() != 501) {
          throw OutsideFault.later(
              OutsideFault.Kind.SERVER_ERROR,
              say("outside.the-server-has-a-problem", answer.status()),
              retryAfter(answer));
        }
      }
    }
    return answer;
  }

  private static Optional<Duration> retryAfter(Answer answer) {
    Optional<String> header = answer.header("retry-after").map(String::strip);
    if (header.isEmpty()) {
      return Optional.empty();
    }
    if (header.get().matches("\\d{1,7}")) {
      return Optional.of(Duration.ofSeconds(Long.parseLong(header.get())));
    }
    return date(header)
        .flatMap(until -> date(answer.header("date")).map(now -> Duration.between(now, until)))
        .filter(wait -> !wait.isNegative());
  }

  /** A moment as HTTP writes it (RFC 9110 §5.6.7). */
  static Optional<Instant> date(Optional<String> header) {
    try {
      return header.map(
          text -> ZonedDateTime.parse(text, DateTimeFormatter.RFC_1123_DATE_TIME).toInstant());
    } catch (DateTimeParseException unreadable) {
      return Optional.empty();
    }
  }

  @Override
  public void destroy() throws IOException {
    client.close();
  }
}
