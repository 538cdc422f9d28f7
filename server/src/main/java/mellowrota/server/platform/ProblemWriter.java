package mellowrota.server.platform;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import org.slf4j.MDC;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Writes problem documents where no controller is at hand: filters, security, servlets. */
@Component
@RequiredArgsConstructor
public class ProblemWriter {

  private final JsonMapper json;

  public void write(HttpServletResponse response, Problem problem) throws IOException {
    if (response.isCommitted()) {
      return;
    }
    Map<String, Object> body = new LinkedHashMap<>();
    body.put("type", "urn:mellow-rota:problem:" + problem.type());
    body.put("title", HttpStatus.valueOf(problem.status()).getReasonPhrase());
    body.put("status", problem.status());
    body.put("detail", problem.getMessage());
    body.putAll(problem.more());
    body.put("request", MDC.get("request"));
    response.setStatus(problem.status());
    if (problem.more().containsKey("retryAfter")) {
      response.setHeader("Retry-After", String.valueOf(problem.more().get("retryAfter")));
    }
    response.setContentType("application/problem+json");
    response
        .getOutputStream()
        .write(json.writeValueAsString(body).getBytes(StandardCharsets.UTF_8));
  }
}
