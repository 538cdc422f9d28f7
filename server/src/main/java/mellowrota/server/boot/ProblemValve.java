package mellowrota.server.boot;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import mellowrota.server.platform.Problem;
import mellowrota.server.platform.ProblemAdvice;
import mellowrota.server.platform.RequestId;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;
import org.apache.tomcat.util.ExceptionUtils;

/**
 * Answers what the web server refuses before any of our code sees it (a malformed address, header
 * or cookie), as a problem document like all else.
 */
public class ProblemValve extends ErrorReportValve {

  @Override
  protected void report(Request request, Response response, Throwable throwable) {
    int status = response.getStatus();
    if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) {
      return;
    }
    Problem problem = ProblemAdvice.ofStatus(status);
    // Words of ours alone, which hold nothing that JSON would escape.
    String body =
        "{\"type\":\"urn:mellow-rota:problem:%s\",\"status\":%d,\"detail\":\"%s\",\"request\":\"%s\"}"
            .formatted(problem.type(), status, problem.getMessage(), RequestId.next());
    try {
      response.setContentType("application/problem+json");
      response.setCharacterEncoding(StandardCharsets.UTF_8.name());
      response.getReporter().write(body);
      response.finishResponse();
    } catch (IOException | IllegalStateException gone) {
      ExceptionUtils.handleThrowable(gone);
      getContainer().getLogger().debug("the client went away", gone);
    }
  }
}
