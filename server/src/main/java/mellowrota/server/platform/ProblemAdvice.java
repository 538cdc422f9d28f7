package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.URI;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;

/** Turns whatever goes wrong into a problem document; nothing of the inside is told. */
@RestControllerAdvice
public class ProblemAdvice {

  private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

  @ExceptionHandler(Problem.class)
  ResponseEntity<ProblemDetail> problem(Problem problem) {
    return answer(body(problem));
  }

  /** The document of a refusal, also for filters and servlets outside the dispatcher. */
  public static ProblemDetail body(Problem problem) {
    ProblemDetail body = ProblemDetail.forStatus(problem.status());
    body.setType(URI.create("urn:mellow-rota:problem:" + problem.type()));
    body.setDetail(problem.getMessage());
    problem.more().forEach(body::setProperty);
    return body;
  }

  @ExceptionHandler(HttpMessageNotReadableException.class)
  ResponseEntity<ProblemDetail> unreadable(HttpMessageNotReadableException unreadable) {
    if (unreadable.getRootCause() instanceof BodyLimit.TooLarge tooLarge) {
      return problem(tooLarge.problem());
    }
    return problem(Problem.badRequest(say("platform.the-body-is-not")));
  }

  @ExceptionHandler(MethodArgumentTypeMismatchException.class)
  ResponseEntity<ProblemDetail> mismatch(MethodArgumentTypeMismatchException mismatch) {
    return problem(Problem.badRequest(say("platform.does-not-have-the", mismatch.getName())));
  }

  @ExceptionHandler({AsyncRequestNotUsableException.class, IOException.class})
  void gone(Exception gone) {
    LOG.debug("the client went away", gone);
  }

  @ExceptionHandler(Exception.class)
  ResponseEntity<ProblemDetail> anything(Exception anything, HttpServletRequest request) {
    if (anything instanceof ErrorResponse known) {
      ProblemDetail body = ProblemDetail.forStatus(known.getStatusCode());
      body.setDetail(
          anything instanceof MissingServletRequestParameterException missing
              ? say("platform.is-missing-send-it", missing.getParameterName())
              : words(known.getStatusCode().value()));
      body.setType(type(known.getStatusCode().value()));
      return ResponseEntity.status(known.getStatusCode())
          .headers(allowOnly(known.getHeaders()))
          .contentType(MediaType.APPLICATION_PROBLEM_JSON)
          .body(tell(body));
    }
    Problem problem = Failures.problem(anything);
    if (Failures.isOurs(problem)) {
      LOG.error("request failed method={} error={}", request.getMethod(), where(anything));
    }
    return answer(body(problem));
  }

  private static URI type(int status) {
    return URI.create(
        "urn:mellow-rota:problem:"
            + switch (status) {
              case 404 -> "not-found";
              case 405 -> "method";
              case 415 -> "form";
              default -> "malformed";
            });
  }

  /** What is told where only a status is known. */
  public static Problem ofStatus(int status) {
    String type = type(status).toString();
    return status >= 500
        ? failure()
        : Problem.of(status, type.substring(type.lastIndexOf(':') + 1), words(status));
  }

  private static HttpHeaders allowOnly(HttpHeaders from) {
    HttpHeaders headers = new HttpHeaders();
    if (from.getFirst(HttpHeaders.ALLOW) != null) {
      headers.set(HttpHeaders.ALLOW, from.getFirst(HttpHeaders.ALLOW));
    }
    return headers;
  }

  public static Problem failure() {
    return Problem.of(500, "failure", say("platform.something-failed-on-our"));
  }

  static String words(int status) {
    return switch (status) {
      case 404 -> say("platform.this-does-not-exist");
      case 405 -> say("platform.this-address-does-not");
      case 415 -> say("platform.this-address-takes-application");
      default -> say("platform.the-request-does-not");
    };
  }

  /** Where a failure arose, by class and line; its message may hold values and is not logged. */
  static String where(Throwable failure) {
    StringBuilder out = new StringBuilder();
    for (Throwable t = failure; t != null && out.length() < 1500; t = t.getCause()) {
      out.append(out.isEmpty() ? "" : " caused by ").append(t.getClass().getName());
      int shown = 0;
      for (StackTraceElement frame : t.getStackTrace()) {
        if (frame.getClassName().startsWith("mellowrota") && shown++ < 4) {
          out.append(" at ").append(frame.getFileName()).append(':').append(frame.getLineNumber());
        }
      }
    }
    return out.toString();
  }

  private static ProblemDetail tell(ProblemDetail body) {
    body.setTitle(HttpStatus.valueOf(body.getStatus()).getReasonPhrase());
    body.setProperty("request", MDC.get("request"));
    return body;
  }

  private static ResponseEntity<ProblemDetail> answer(ProblemDetail body) {
    ResponseEntity.BodyBuilder answer =
        ResponseEntity.status(body.getStatus()).contentType(MediaType.APPLICATION_PROBLEM_JSON);
    Object retry = body.getProperties() == null ? null : body.getProperties().get("retryAfter");
    if (retry != null) {
      answer.header(HttpHeaders.RETRY_AFTER, String.valueOf(retry));
    }
    return answer.body(tell(body));
  }
}
