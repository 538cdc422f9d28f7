package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.core.converter.ModelConverters;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.HeaderParameter;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.method.HandlerMethod;

/** What the OpenAPI document says of each operation's answers, by how the operation is written. */
@Configuration
class ToldAnswers {

  /** How an operation may be refused. */
  private enum Refusal {
    MALFORMED("400"),
    NOT_SIGNED_IN("401"),
    NOT_ALLOWED("403"),
    NOT_FOUND("404"),
    CONFLICT("409"),
    CHANGED_MEANWHILE("412"),
    TOO_LARGE("413"),
    FAULTS("422"),
    NO_IF_MATCH("428"),
    BUSY("503");

    private final String status;

    Refusal(String status) {
      this.status = status;
    }

    private String words() {
      return say("platform.refused-" + status);
    }
  }

  /** A problem document (RFC 9457), as every refusal is one. */
  @Schema(name = "Problem")
  record ProblemDocument(
      String type,
      String title,
      int status,
      String detail,
      @Nullable String instance,
      @Schema(description = "The request number, to be found in the log") @Nullable String request,
      @Nullable List<Problem.Fault> faults,
      @Schema(description = "In seconds") @Nullable Integer retryAfter,
      @Schema(description = "With 412: the saved version") @Nullable Object theirs,
      @Nullable String theirsTag,
      @Schema(description = "With 412: the version that was sent") @Nullable Object mine) {}

  @Bean
  OpenApiCustomizer refusalsAsParts() {
    Content content =
        new Content()
            .addMediaType(
                MediaType.APPLICATION_PROBLEM_JSON_VALUE,
                new io.swagger.v3.oas.models.media.MediaType()
                    .schema(new io.swagger.v3.oas.models.media.Schema<>().$ref("Problem")));
    return document -> {
      Components parts = document.getComponents();
      ModelConverters.getInstance().readAll(ProblemDocument.class).forEach(parts::addSchemas);
      for (Refusal one : Refusal.values()) {
        parts.addResponses(one.name(), new ApiResponse().description(one.words()).content(content));
      }
    };
  }

  @Bean
  OperationCustomizer answersByHandler() {
    return (operation, method) -> {
      ApiResponses answers = operation.getResponses();
      if (method.getReturnType().getGenericParameterType().getTypeName().endsWith("Void>")) {
        answers.remove("200");
        answers.addApiResponse("204", new ApiResponse().description("Done"));
      }
      if (wants(method, IfMatch.class)) {
        header(
            operation,
            IfMatch.HEADER,
            true,
            "The tag of the version that is changed; *: whatever is saved");
      }
      if (wants(method, IdempotencyKey.class)) {
        header(
            operation,
            IdempotencyKey.HEADER,
            false,
            "A request sent twice under one key is done once");
      }
      refusals(operation, method)
          .forEach(one -> answers.addApiResponse(one.status, new ApiResponse().$ref(one.name())));
      return operation;
    };
  }

  private static void header(Operation operation, String name, boolean required, String words) {
    operation.addParametersItem(
        new HeaderParameter()
            .name(name)
            .required(required)
            .schema(new StringSchema())
            .description(words));
  }

  private static Stream<Refusal> refusals(Operation operation, HandlerMethod method) {
    boolean body = operation.getRequestBody() != null;
    boolean named =
        Stream.of(method.getMethodParameters())
            .anyMatch(one -> one.hasParameterAnnotation(PathVariable.class));
    return Stream.of(Refusal.values())
        .filter(
            one ->
                switch (one) {
                  case MALFORMED, NOT_SIGNED_IN, NOT_ALLOWED, BUSY -> true;
                  case NOT_FOUND -> named;
                  case CONFLICT -> !method.hasMethodAnnotation(GetMapping.class);
                  case CHANGED_MEANWHILE, NO_IF_MATCH -> wants(method, IfMatch.class);
                  case TOO_LARGE -> body;
                  case FAULTS -> body || operation.getParameters() != null;
                });
  }

  private static boolean wants(HandlerMethod method, Class<?> type) {
    return Stream.of(method.getMethodParameters())
        .map(MethodParameter::getParameterType)
        .anyMatch(type::equals);
  }
}
