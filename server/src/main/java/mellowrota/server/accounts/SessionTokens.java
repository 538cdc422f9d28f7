package mellowrota.server.accounts;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import lombok.RequiredArgsConstructor;
import mellowrota.server.crew.store.HouseStore;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.security.web.csrf.DefaultCsrfToken;
import org.springframework.stereotype.Component;
import org.springframework.web.util.WebUtils;

/**
 * The token that a page sends back in a header. Of somebody signed in it is made from their session
 * and the house's secret seed, so that a cookie which another site planted is worth nothing; before
 * that it is what the cookie says.
 */
@Component
@RequiredArgsConstructor
class SessionTokens implements CsrfTokenRepository {

  static final String HEADER = "X-XSRF-TOKEN";

  private static final String COOKIE = "XSRF-TOKEN";

  private final HouseStore house;
  private volatile String seed;

  @Override
  public CsrfToken generateToken(HttpServletRequest request) {
    HttpSession session = request.getSession(false);
    return token(session == null ? Secrets.token() : of(session));
  }

  @Override
  public CsrfToken loadToken(HttpServletRequest request) {
    Cookie cookie = WebUtils.getCookie(request, HostCookies.name(request, COOKIE));
    if (cookie == null || cookie.getValue().isEmpty()) {
      return null;
    }
    HttpSession session = request.getSession(false);
    // One of another session is replaced, and was never the right one.
    return session == null || cookie.getValue().equals(of(session))
        ? token(cookie.getValue())
        : null;
  }

  @Override
  public void saveToken(CsrfToken token, HttpServletRequest request, HttpServletResponse response) {
    response.addHeader(
        HttpHeaders.SET_COOKIE,
        ResponseCookie.from(
                HostCookies.name(request, COOKIE), token == null ? "" : token.getToken())
            .path("/")
            .sameSite("Lax")
            .secure(request.isSecure())
            .maxAge(token == null ? 0 : -1)
            .build()
            .toString());
  }

  private static CsrfToken token(String value) {
    return new DefaultCsrfToken(HEADER, "_csrf", value);
  }

  private String of(HttpSession session) {
    if (seed == null) {
      seed = house.house().seed();
    }
    return Secrets.sha256("csrf\n" + seed + "\n" + session.getId());
  }
}
