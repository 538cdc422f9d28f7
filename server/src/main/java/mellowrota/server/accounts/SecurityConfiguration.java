package mellowrota.server.accounts;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import mellowrota.server.platform.Problem;
import mellowrota.server.platform.ProblemWriter;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.www.BasicAuthenticationFilter;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.security.web.firewall.StrictHttpFirewall;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;
import org.springframework.web.filter.OncePerRequestFilter;

/** Who may call what, and the headers every answer carries. */
@Configuration
class SecurityConfiguration {

  private static final String CONTENT_POLICY =
      "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:;"
          + " font-src 'self' data:; connect-src 'self'; object-src 'none'; base-uri 'none';"
          + " form-action 'self'; frame-ancestors 'none'";

  private final ProblemWriter problems;
  private final Accounts accounts;

  SecurityConfiguration(ProblemWriter problems, Accounts accounts) {
    this.problems = problems;
    this.accounts = accounts;
  }

  @Bean
  StrictHttpFirewall firewall() {
    StrictHttpFirewall firewall = new StrictHttpFirewall();
    firewall.setAllowedHttpMethods(
        List.of(
            "GET",
            "HEAD",
            "POST",
            "PUT",
            "PATCH",
            "DELETE",
            "OPTIONS",
            "PROPFIND",
            "PROPPATCH",
            "REPORT",
            "MKCALENDAR",
            "MKCOL",
            "COPY",
            "MOVE",
            "LOCK",
            "UNLOCK",
            "ACL"));
    return firewall;
  }

  @Bean
  RequestRejectedHandler rejected() {
    return (request, response, rejected) ->
        problems.write(response, Problem.badRequest("The address or a header is malformed."));
  }

  @Bean
  @Order(1)
  SecurityFilterChain calendarSecurity(HttpSecurity http) throws Exception {
    headers(http);
    return http.securityMatcher("/dav", "/dav/**")
        .csrf(csrf -> csrf.disable())
        .requestCache(cache -> cache.disable())
        .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
        .addFilterAt(new DavSignIn(accounts, problems), BasicAuthenticationFilter.class)
        .authorizeHttpRequests(r -> r.anyRequest().authenticated())
        .build();
  }

  @Bean
  @Order(2)
  SecurityFilterChain pageSecurity(HttpSecurity http) throws Exception {
    headers(http);
    CookieCsrfTokenRepository tokens = CookieCsrfTokenRepository.withHttpOnlyFalse();
    tokens.setCookieCustomizer(cookie -> cookie.sameSite("Lax"));
    return http.csrf(
            csrf -> {
              csrf.spa();
              csrf.csrfTokenRepository(tokens);
              csrf.ignoringRequestMatchers("/.well-known/caldav", "/test/**");
            })
        .requestCache(cache -> cache.disable())
        .logout(logout -> logout.disable())
        .formLogin(form -> form.disable())
        .httpBasic(basic -> basic.disable())
        .addFilterAfter(new OnlyOpenAccounts(), SecurityContextHolderFilter.class)
        .exceptionHandling(
            e ->
                e.authenticationEntryPoint(
                        (request, response, denied) ->
                            problems.write(response, Problem.of(401, "sign-in", "Sign in first.")))
                    .accessDeniedHandler(
                        (request, response, denied) ->
                            problems.write(
                                response,
                                Problem.of(
                                    403,
                                    "csrf",
                                    "Send the value of the cookie XSRF-TOKEN in X-XSRF-TOKEN."))))
        .authorizeHttpRequests(
            r ->
                r.requestMatchers("/api/v1/session", "/api/v1/invitations/**")
                    .permitAll()
                    .requestMatchers("/api/**")
                    .authenticated()
                    .requestMatchers("/.well-known/caldav", "/actuator/health/**", "/v3/api-docs")
                    .permitAll()
                    .requestMatchers(HttpMethod.GET, "/**")
                    .permitAll()
                    .requestMatchers("/test/**")
                    .permitAll()
                    .anyRequest()
                    .authenticated())
        .build();
  }

  private static void headers(HttpSecurity http) {
    http.headers(
        h ->
            h.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                .frameOptions(HeadersConfigurer.FrameOptionsConfig::deny)
                .referrerPolicy(
                    r -> r.policy(ReferrerPolicyHeaderWriter.ReferrerPolicy.SAME_ORIGIN)));
  }

  /** A session of somebody who has left, or may no longer sign in, is none. */
  private final class OnlyOpenAccounts extends OncePerRequestFilter {
    @Override
    protected void doFilterInternal(
        HttpServletRequest request, HttpServletResponse response, FilterChain chain)
        throws ServletException, IOException {
      Authentication signedIn = SecurityContextHolder.getContext().getAuthentication();
      boolean named = signedIn != null && signedIn.isAuthenticated();
      if (named && !accounts.mayEnter(Long.parseLong(signedIn.getName()))) {
        SecurityContextHolder.clearContext();
        if (request.getSession(false) != null) {
          request.getSession(false).invalidate();
        }
      }
      chain.doFilter(request, response);
    }
  }
}
