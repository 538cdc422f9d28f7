package mellowrota.server.platform;

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
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Refuses bodies over the limit with 413, whether or not they say their length. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 2)
public class BodyLimit extends OncePerRequestFilter {

  /** The largest body taken, in bytes. */
  public static final int MOST = 1 << 20;

  /** Thrown while a body without a length is read. */
  public static final class TooLarge extends IOException {
    TooLarge() {
      super("body over " + MOST + " bytes");
    }
  }

  private final ProblemWriter writer;

  BodyLimit(ProblemWriter writer) {
    this.writer = writer;
  }

  public static Problem tooLarge() {
    return Problem.of(413, "too-large", "A body holds at most " + MOST + " bytes.");
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    if (request.getContentLengthLong() > MOST) {
      writer.write(response, tooLarge());
      return;
    }
    chain.doFilter(new Limited(request), response);
  }

  private static final class Limited extends HttpServletRequestWrapper {
    Limited(HttpServletRequest request) {
      super(request);
    }

    @Override
    public ServletInputStream getInputStream() throws IOException {
      return new Counting(super.getInputStream());
    }

    @Override
    public BufferedReader getReader() throws IOException {
      return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
    }
  }

  private static final class Counting extends ServletInputStream {
    private final ServletInputStream inner;
    private long count;

    Counting(ServletInputStream inner) {
      this.inner = inner;
    }

    private void count(int read) throws IOException {
      if (read > 0) {
        count += read;
        if (count > MOST) {
          throw new TooLarge();
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
