package mellowrota.server.accounts;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.springframework.session.web.http.CookieSerializer;
import org.springframework.session.web.http.DefaultCookieSerializer;
import org.springframework.stereotype.Component;

/** The session's cookie, which under TLS no other host and no plain page can set. */
@Component
class HostCookies implements CookieSerializer {

  private static final String SESSION = "mellow-session";

  private final CookieSerializer plain = named(SESSION, false);
  private final CookieSerializer secure = named("__Host-" + SESSION, true);

  /** What a cookie is called in this request (RFC 6265bis, cookie name prefixes). */
  static String name(HttpServletRequest request, String plain) {
    return request.isSecure() ? "__Host-" + plain : plain;
  }

  private static CookieSerializer named(String name, boolean isSecure) {
    DefaultCookieSerializer cookies = new DefaultCookieSerializer();
    cookies.setCookieName(name);
    cookies.setCookiePath("/");
    cookies.setUseHttpOnlyCookie(true);
    cookies.setUseSecureCookie(isSecure);
    cookies.setSameSite("Lax");
    return cookies;
  }

  private CookieSerializer of(HttpServletRequest request) {
    return request.isSecure() ? secure : plain;
  }

  @Override
  public void writeCookieValue(CookieValue value) {
    of(value.getRequest()).writeCookieValue(value);
  }

  @Override
  public List<String> readCookieValues(HttpServletRequest request) {
    return of(request).readCookieValues(request);
  }
}
