package mellowrota.server.accounts;

import static mellowrota.server.platform.Words.say;

import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.server.platform.Problem;
import mellowrota.server.platform.ProblemWriter;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.www.BasicAuthenticationFilter;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.security.web.firewall.StrictHttpFirewall;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;
import org.springframework.session.config.SessionRepositoryCustomizer;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;

/** Who may call what, and the headers every answer carries. */
@Configuration
@RequiredArgsConstructor
class SecurityConfiguration {

  private static final String CONTENT_POLICY =
      "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:;"
          + " font-src 'self' data:; connect-src 'self'; object-src 'none'; base-uri 'none';"
          + " form-action 'self'; frame-ancestors 'none'";

  private final ProblemWriter problems;
  private final Accounts accounts;
  private final SessionTokens tokens;

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
        problems.write(response, Problem.badRequest(say("accounts.the-address-or-a")));
  }

  @Bean
  @Order(1)
  SecurityFilterChain calendarSecurity(HttpSecurity http) throws Exception {
    headers(http);
    // By where it is served, however its address was written.
    return http.securityMatcher(request -> "/dav".equals(request.getServletPath()))
        .csrf(csrf -> csrf.disable())
        .requestCache(cache -> cache.disable())
        .sessionManagement(
            s ->
                s.sessionCreationPolicy(SessionCreationPolicy.STATELESS)
                    .sessionFixation(fixation -> fixation.none()))
        .addFilterAt(new DavSignIn(accounts, problems), BasicAuthenticationFilter.class)
        .authorizeHttpRequests(r -> r.anyRequest().authenticated())
        .build();
  }

  @Bean
  @Order(2)
  SecurityFilterChain pageSecurity(HttpSecurity http) throws Exception {
    headers(http);
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
        .exceptionHandling(
            e ->
                e.authenticationEntryPoint(
                        (request, response, denied) ->
                            problems.write(
                                response, Problem.of(401, "sign-in", say("common.sign-in-first"))))
                    .accessDeniedHandler(
                        (request, response, denied) ->
                            problems.write(
                                response,
                                Problem.of(403, "csrf", say("accounts.send-the-value-of")))))
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
                    .requestMatchers(HttpMethod.HEAD, "/**")
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

  /**
   * A session of somebody who has left, or may no longer sign in, is none: it is not found. Asked
   * in the reading of the session itself, since every request comes by here.
   */
  @Bean
  static SessionRepositoryCustomizer<JdbcIndexedSessionRepository> onlyOpenAccounts() {
    return sessions ->
        sessions.setGetSessionQuery(
            """
            select s.primary_id, s.session_id, s.creation_time, s.last_access_time,
              s.max_inactive_interval, sa.attribute_name, sa.attribute_bytes
            from %TABLE_NAME% s
              left join %TABLE_NAME%_attributes sa on sa.session_primary_id = s.primary_id
            where s.session_id = ? and (s.principal_name is null or exists (
              select 1 from person p where p.id = s.principal_name::bigint
                and p.standing <> 'LEFT' and p.account_right <> 'NONE'))
            """);
  }
}
