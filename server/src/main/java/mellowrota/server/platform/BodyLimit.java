package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import lombok.RequiredArgsConstructor;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Refuses bodies over the limit with 413, whether or not they say their length. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 2)
@RequiredArgsConstructor
public class BodyLimit extends OncePerRequestFilter {

  /** The largest body taken, in bytes. */
  public static final int MOST = 1 << 20;

  /** The same of files and their rows. */
  public static final int MOST_OF_FILES = 1 << 24;

  private static final String FILES = "/api/v1/files/";

  /** Thrown while a body without a length is read. */
  public static final class TooLarge extends IOException {
    private final int most;

    TooLarge(int most) {
      super("body over " + most + " bytes");
      this.most = most;
    }

    public Problem problem() {
      return Problem.of(413, "too-large", say("platform.a-body-may-have", most));
    }
  }

  private final ProblemWriter writer;

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    int most = request.getRequestURI().startsWith(FILES) ? MOST_OF_FILES : MOST;
    if (request.getContentLengthLong() > most) {
      writer.write(response, new TooLarge(most).problem());
      return;
    }
    chain.doFilter(new Limited(request, most), response);
  }

  private static final class Limited extends HttpServletRequestWrapper {
    private final int most;

    Limited(HttpServletRequest request, int most) {
      super(request);
      this.most = most;
    }

    @Override
    public ServletInputStream getInputStream() throws IOException {
      return new Counting(super.getInputStream(), most);
    }

    @Override
    public BufferedReader getReader() throws IOException {
      return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
    }
  }

  private static final class Counting extends ServletInputStream {
    private final ServletInputStream inner;
    private final int most;
    private long count;

    Counting(ServletInputStream inner, int most) {
      this.inner = inner;
      this.most = most;
    }

    private void count(int read) throws IOException {
      if (read > 0) {
        count += read;
        if (count > most) {
          throw new TooLarge(most);
        }
      }
    }

    @Override
    public int read() throws IOException {
      int read = inner.read();
      count(read < 0 ? 0 : 1);
      return read;
    }

    @Override
    public int read(byte[] into, int off, int len) throws IOException {
      int read = inner.read(into, off, len);
      count(read);
      return read;
    }

    @Override
    public boolean isFinished() {
      return inner.isFinished();
    }

    @Override
    public boolean isReady() {
      return inner.isReady();
    }

    @Override
    public void setReadListener(ReadListener listener) {
      inner.setReadListener(listener);
    }
  }
}
