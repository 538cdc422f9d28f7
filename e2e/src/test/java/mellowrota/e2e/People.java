package mellowrota.e2e;

import java.util.Map;

/** Adds people with an account of their own. */
final class People {

  static final String PASSWORD = "long enough for it";

  private People() {}

  /** Somebody new, invited and signed in; gives their number. */
  static long invited(
      Server server, Api hana, String name, String standing, Map<String, Api> signedIn) {
    long person =
        hana.post(
                "/api/v1/people",
                "{\"name\": \"%s\", \"standing\": \"%s\"}".formatted(name, standing))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    signedIn.put(name, invite(server, hana, person, name, "WORKER"));
    return person;
  }

  /** Gives somebody an account and signs them in. */
  static Api invite(Server server, Api hana, long person, String name, String right) {
    String email = email(name);
    String link =
        hana.post(
                "/api/v1/people/" + person + "/invitation",
                "{\"email\": \"%s\", \"right\": \"%s\"}".formatted(email, right))
            .expect(201)
            .json()
            .get("link")
            .asString();
    Api api = new Api(server);
    api.get("/api/v1/session");
    api.post(
            link.replace("/welcome/", "/api/v1/invitations/"),
            "{\"password\": \"" + PASSWORD + "\"}")
        .expect(204);
    api.signIn(email, PASSWORD).expect(200);
    return api;
  }

  static String email(String name) {
    return name.toLowerCase(java.util.Locale.ROOT).replace(' ', '.') + "@quillwater.example";
  }
}
