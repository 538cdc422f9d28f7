package mellowrota.server.platform;

import java.time.Clock;
import java.util.List;
import java.util.function.Function;
import mellowrota.core.people.PersonId;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Profile;
import org.springframework.core.MethodParameter;
import org.springframework.http.MediaType;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.accept.FixedContentNegotiationStrategy;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.ContentNegotiationConfigurer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.json.JsonFactory;

/** The clock, strict JSON, and what controllers have as parameters by their types. */
@Configuration
class WebConfiguration implements WebMvcConfigurer {

  @Bean
  @Profile("!settable-clock")
  Clock clock() {
    return Clock.systemUTC();
  }

  @Bean
  JsonMapperBuilderCustomizer strict() {
    return builder -> builder.enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION);
  }

  @Bean
  JsonFactory jsonFactory() {
    return JsonFactory.builder()
        .streamReadConstraints(
            StreamReadConstraints.builder()
                .maxNestingDepth(20)
                .maxStringLength(100_000)
                .maxNumberLength(40)
                .build())
        .build();
  }

  /** Each address answers in one form, whatever is asked for (RFC 9110 §12.5.1). */
  @Override
  public void configureContentNegotiation(ContentNegotiationConfigurer negotiation) {
    negotiation.strategies(List.of(new FixedContentNegotiationStrategy(MediaType.ALL)));
  }

  @Override
  public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
    resolvers.add(new Parameter(Asker.class, WebConfiguration::asker));
    resolvers.add(
        new Parameter(IfMatch.class, request -> IfMatch.sent(request.getHeader(IfMatch.HEADER))));
    resolvers.add(
        new Parameter(
            IdempotencyKey.class,
            request -> IdempotencyKey.sent(request.getHeader(IdempotencyKey.HEADER))));
  }

  private static Asker asker(NativeWebRequest request) {
    Object as = request.getAttribute(Asker.AS, RequestAttributes.SCOPE_REQUEST);
    if (as != null) {
      return new Asker((PersonId) as);
    }
    Authentication signedIn = SecurityContextHolder.getContext().getAuthentication();
    return new Asker(PersonId.of(Long.parseLong(signedIn.getName())));
  }

  /** Something that a controller has as a parameter by its type. */
  private record Parameter(Class<?> type, Function<NativeWebRequest, Object> read)
      implements HandlerMethodArgumentResolver {

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
      return parameter.getParameterType().equals(type);
    }

    @Override
    public Object resolveArgument(
        MethodParameter parameter,
        ModelAndViewContainer container,
        NativeWebRequest request,
        WebDataBinderFactory binders) {
      return read.apply(request);
    }
  }
}
