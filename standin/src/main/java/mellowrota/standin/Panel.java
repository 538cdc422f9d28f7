package mellowrota.standin;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * The page on which faults are set: one form an account, and what stands in its calendars. Like all
 * of the host it is on loopback only, and for trying things out.
 */
final class Panel implements HttpHandler {

  private final StandIn host;

  Panel(StandIn host) {
    this.host = host;
  }

  @Override
  public void handle(HttpExchange exchange) throws IOException {
    try (exchange) {
      if (exchange.getRequestMethod().equals("POST")) {
        // A page of another origin must not set faults.
        String origin = exchange.getRequestHeaders().getFirst("Origin");
        String self = "http://" + exchange.getRequestHeaders().getFirst("Host");
        if (origin != null && !origin.equals(self)) {
          exchange.sendResponseHeaders(403, -1);
          return;
        }
        set(form(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8)));
        exchange.getResponseHeaders().set("Location", "/panel");
        exchange.sendResponseHeaders(303, -1);
        return;
      }
      byte[] page = page().getBytes(StandardCharsets.UTF_8);
      exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
      exchange.sendResponseHeaders(200, page.length);
      exchange.getResponseBody().write(page);
    }
  }

  private static Map<String, String> form(String body) {
    Map<String, String> found = new HashMap<>();
    for (String pair : body.split("&")) {
      String[] both = pair.split("=", 2);
      found.put(
          URLDecoder.decode(both[0], StandardCharsets.UTF_8),
          both.length == 2 ? URLDecoder.decode(both[1], StandardCharsets.UTF_8) : "");
    }
    return found;
  }

  private void set(Map<String, String> form) {
    Optional<Account> account = host.find(form.getOrDefault("account", ""));
    if (account.isEmpty()) {
      return;
    }
    if (form.containsKey("somebody")) {
      account
          .get()
          .collections()
          .values()
          .forEach(one -> Somebody.edits(one, Somebody.Deed.valueOf(form.get("somebody"))));
      return;
    }
    for (Faults.Chance chance : Faults.Chance.values()) {
      double percent = number(form.get(chance.name()));
      account.get().faults().set(chance, Math.max(0, Math.min(100, percent)) / 100);
    }
    for (Faults.Mode mode : Faults.Mode.values()) {
      account.get().faults().set(mode, form.containsKey(mode.name()));
    }
  }

  private static double number(String text) {
    return text != null && text.matches("\\d{1,3}(\\.\\d{1,3})?") ? Double.parseDouble(text) : 0;
  }

  private String page() {
    StringBuilder out = new StringBuilder();
    out.append("<!doctype html><html lang=en><meta charset=utf-8><title>Calendar host</title>");
    out.append("<style>body{font:15px sans-serif;margin:2em;max-width:60em}");
    out.append("fieldset{margin:1em 0}label{margin-right:1.2em}input[size]{width:4em}</style>");
    out.append("<h1>A calendar host to try against</h1>");
    out.append(
        "<p>Percent of requests to which something happens, and what holds until unset.</p>");
    for (Account account : host.accounts().values()) {
      out.append("<form method=post action=/panel><fieldset><legend>");
      out.append(Xml.escape(account.name())).append("</legend>");
      out.append("<input type=hidden name=account value='");
      out.append(Xml.escape(account.name()).replace("'", "&#39;")).append("'>");
      for (Faults.Chance chance : Faults.Chance.values()) {
        out.append("<label>").append(words(chance.name())).append(" <input size=4 name=");
        out.append(chance.name()).append(" value=");
        out.append(account.faults().chance(chance) * 100).append("></label>");
      }
      out.append("<p>");
      for (Faults.Mode mode : Faults.Mode.values()) {
        out.append("<label><input type=checkbox name=").append(mode.name());
        out.append(account.faults().is(mode) ? " checked" : "").append("> ");
        out.append(words(mode.name())).append("</label>");
      }
      out.append("<p><button>Set</button>");
      for (Somebody.Deed deed : Somebody.Deed.values()) {
        out.append(" <button name=somebody value=").append(deed.name()).append(">Somebody ");
        out.append(words(deed.name())).append(" an entry</button>");
      }
      out.append("</fieldset></form><ul>");
      for (Collection one : account.collections().values()) {
        out.append("<li>").append(Xml.escape(one.title())).append(": ");
        out.append(one.objects().size()).append(" entries</li>");
      }
      out.append("</ul>");
    }
    return out.toString();
  }

  private static String words(String name) {
    return name.toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
  }
}
