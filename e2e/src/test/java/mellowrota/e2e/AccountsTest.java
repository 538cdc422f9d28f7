package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Who gets in, who may do what, and what every answer carries. */
public class AccountsTest extends OnDemo {

  private Api ines;

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
  }

  private String invite(String name, String right) {
    long id = hana.idOf("people", name);
    String email =
        name.toLowerCase(java.util.Locale.ROOT).replace(' ', '.') + "@quillwater.example";
    return hana.post(
            "/api/v1/people/" + id + "/invitation",
            "{\"email\": \"" + email + "\", \"right\": \"" + right + "\"}")
        .expect(201)
        .json()
        .get("link")
        .asString();
  }

  /** A session that was not used for too long is none: it is refused, and gone with its content. */
  @Test
  public void aSessionEnds() {
    Api tam = Api.of(server, "tam");
    String theirs = "principal_name = '%d'".formatted(hana.idOf("people", "Tam Birtles"));
    server
        .database()
        .execute("update spring_session set last_access_time = 0, expiry_time = 1 where " + theirs);
    tam.get("/api/v1/my-day").expect(401);
    assertThat(server.database().query("select session_id from spring_session where " + theirs))
        .isEmpty();
    tam.signIn("tam@quillwater.example", "still-water").expect(200);
    tam.get("/api/v1/my-day").expect(200);
  }

  @Test
  public void anInvitationWorksOnceEvenForTwoAtTheSameTime() {
    String link = invite("Osk Fenwright", "WORKER").replace("/welcome/", "/api/v1/invitations/");
    Api one = new Api(server);
    assertThat(one.get(link).expect(200).json().get("name").asString()).isEqualTo("Osk Fenwright");
    Api other = new Api(server);
    other.get(link).expect(200);
    List<CompletableFuture<Integer>> both = new ArrayList<>();
    for (Api api : List.of(one, other)) {
      api.get("/api/v1/session");
      both.add(
          CompletableFuture.supplyAsync(
              () -> api.post(link, "{\"password\": \"long enough for it\"}").status()));
    }
    assertThat(both.stream().map(CompletableFuture::join).sorted().toList())
        .containsExactly(204, 404);
    one.signIn("osk.fenwright@quillwater.example", "long enough for it").expect(200);
    one.get(link).expect(404);
  }

  @Test
  public void aShortPasswordIsRefusedAndTheInvitationStays() {
    String link = invite("Priya Lund", "WORKER").replace("/welcome/", "/api/v1/invitations/");
    Api tam = new Api(server);
    tam.get("/api/v1/session");
    tam.post(link, "{\"password\": \"short\"}").expect(422);
    tam.post(link, "{\"password\": \"long enough for it\"}").expect(204);
  }

  @Test
  public void aChangedPasswordEndsTheOtherSessionsAndKeepsThisOne() {
    String link = invite("Dov Castellan", "WORKER").replace("/welcome/", "/api/v1/invitations/");
    Api here = new Api(server);
    here.get("/api/v1/session");
    here.post(link, "{\"password\": \"first long password\"}").expect(204);
    here.signIn("dov.castellan@quillwater.example", "first long password").expect(200);
    Api there = new Api(server);
    there.signIn("dov.castellan@quillwater.example", "first long password").expect(200);
    here.post(
            "/api/v1/account/password",
            "{\"old\": \"wrong\", \"password\": \"second long password\"}")
        .expect(422);
    here.post(
            "/api/v1/account/password",
            "{\"old\": \"first long password\", \"password\": \"second long password\"}")
        .expect(204);
    here.get("/api/v1/records").expect(200);
    there.get("/api/v1/records").expect(401);
  }

  @Test
  public void tenWrongPasswordsCloseTheDoorForAWhileAndOnlyThatDoor() {
    Api wren = new Api(server);
    for (int i = 0; i < 10; i++) {
      wren.signIn("wren@quillwater.example", "wrong").expect(401);
    }
    Api.Answer refused = wren.signIn("wren@quillwater.example", "still-water").expect(429);
    assertThat(refused.header("Retry-After")).isEqualTo("900");
    Api.of(server, "tam");
    server.setClock("2026-11-25T09:30:00Z");
    wren.signIn("wren@quillwater.example", "still-water").expect(200);
    server.setClock(Demo.NOW);
  }

  /** Counted before the password is looked at, so that none slips by beside the others. */
  @Test
  public void sixtyWrongPasswordsAtOnceCountAsSixty() {
    String link = invite("Bram Idowu", "WORKER").replace("/welcome/", "/api/v1/invitations/");
    Api bram = new Api(server);
    bram.get("/api/v1/session");
    bram.post(link, "{\"password\": \"long enough for it\"}").expect(204);
    // Letters that fold alike name the same account: a dotless i, a long s, full width.
    List<String> names =
        List.of(
            "bram.idowu@quillwater.example",
            "BRAM.IDOWU@quillwater.example",
            "bram.\u0131dowu@quillwater.example");
    List<CompletableFuture<Integer>> all = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      String name = names.get(i % names.size());
      all.add(
          CompletableFuture.supplyAsync(
              () -> new Api(server).signIn(name, "wrong wrong wrong").status()));
    }
    List<Integer> answers = all.stream().map(CompletableFuture::join).sorted().toList();
    assertThat(answers.stream().filter(one -> one == 401).count())
        .as("tries that were looked at, of " + answers)
        .isLessThanOrEqualTo(10);
    assertThat(server.database().query("select max(tries)::text from sign_in_try"))
        .as("all of them are counted on the account")
        .allSatisfy(count -> assertThat(Integer.parseInt(count)).isGreaterThanOrEqualTo(40));
    assertThat(bram.signIn("bram.idowu@quillwater.example", "long enough for it").status())
        .isEqualTo(429);
  }

  @Test
  public void aStrangersWrongTriesEndNobodysSessionNorAppPassword() {
    ines.get("/api/v1/records?limit=1").expect(200);
    for (int i = 0; i < 12; i++) {
      new Api(server).signIn("ines@quillwater.example", "wrong wrong");
    }
    for (int i = 0; i < 40; i++) {
      new Api(server)
          .withAppPassword("ines@quillwater.example:wrong-wrong")
          .dav("PROPFIND", "/dav/", null, "Depth", "0");
    }
    ines.get("/api/v1/records?limit=1").expect(200);
    ines.dav("PROPFIND", "/dav/", null, "Depth", "0").expect(207);
    server.setClock("2026-11-25T09:40:00Z");
    server.setClock(Demo.NOW);
  }

  @Test
  public void commonPasswordsAreRefusedAndBlanksStayAsTyped() {
    String link = invite("Anneke Dray", "WORKER").replace("/welcome/", "/api/v1/invitations/");
    Api anneke = new Api(server);
    anneke.get("/api/v1/session");
    assertThat(anneke.post(link, "{\"password\": \"qwertyuiop\"}").expect(422).text())
        .contains("easy to guess");
    anneke.post(link, "{\"password\": \"  between blanks  \"}").expect(204);
    anneke.signIn("anneke.dray@quillwater.example", "between blanks").expect(401);
    anneke.signIn("anneke.dray@quillwater.example", "  between blanks  ").expect(200);
  }

  @Test
  public void aTokenIsOfItsSessionAlone() {
    Api tam = Api.of(server, "tam");
    String planted = "0".repeat(64);
    tam.cookies().stream()
        .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
        .forEach(cookie -> cookie.setValue(planted));
    tam.post("/api/v1/views", "{\"name\": \"x\", \"query\": \"\"}", "X-XSRF-TOKEN", planted)
        .expect(403);
    tam.get("/api/v1/session").expect(200);
    tam.post("/api/v1/views", "{\"name\": \"x\", \"query\": \"\"}").expect(201);
  }

  @Test
  public void onesSessionsAreListedAndEnded() {
    Api here = Api.of(server, "wren");
    Api there = Api.of(server, "wren");
    JsonNode all = here.get("/api/v1/account/sessions").expect(200).json();
    assertThat(all.valueStream().filter(one -> one.get("here").asBoolean())).hasSize(1);
    assertThat(all.get(0).get("here").asBoolean()).isTrue();
    assertThat(all.toString()).doesNotContain(here.cookie("mellow-session"));
    for (JsonNode one : all) {
      if (!one.get("here").asBoolean()) {
        here.delete("/api/v1/account/sessions/" + one.get("id").asString()).expect(204);
      }
    }
    there.get("/api/v1/my-day").expect(401);
    here.get("/api/v1/my-day").expect(200);
    here.delete("/api/v1/account/sessions/0000000000000000").expect(404);
  }

  @Test
  public void anAppPasswordIsMadeWithThePasswordAlone() {
    Api tam = Api.of(server, "tam");
    tam.post("/api/v1/account/app-passwords", "{\"label\": \"x\"}").expect(422);
    assertThat(
            tam.post("/api/v1/account/app-passwords", "{\"label\": \"x\", \"password\": \"wrong\"}")
                .expect(422)
                .text())
        .contains("/password");
  }

  @Test
  public void anUnknownAddressIsToldLikeAWrongPassword() {
    Api api = new Api(server);
    String unknown = api.signIn("nobody@quillwater.example", "x").expect(401).text();
    String wrong = api.signIn("tam@quillwater.example", "x").expect(401).text();
    assertThat(unknown.replaceAll("\"request\":\"\\w+\"", ""))
        .isEqualTo(wrong.replaceAll("\"request\":\"\\w+\"", ""));
  }

  @Test
  public void everyAnswerCarriesTheGuardingHeaders() {
    for (String path : List.of("/", "/api/v1/session", "/dav/", "/nowhere.html")) {
      Api.Answer answer = new Api(server).get(path);
      assertThat(answer.header("X-Content-Type-Options")).as(path).isEqualTo("nosniff");
      assertThat(answer.header("Content-Security-Policy"))
          .contains("script-src 'self'")
          .contains("frame-ancestors 'none'");
      assertThat(answer.header("X-Request-Id")).isNotEmpty();
      assertThat(answer.header("Cache-Control")).contains("no-store");
    }
    assertThat(
            new Api(server).signIn("tam@quillwater.example", "still-water").headers("Set-Cookie"))
        .anySatisfy(cookie -> assertThat(cookie).startsWith("mellow-session=").contains("HttpOnly"))
        .allSatisfy(cookie -> assertThat(cookie).contains("SameSite=Lax"));
  }

  @Test
  public void aForgedRequestWithoutTheTokenIsRefused() {
    Api.Answer answer =
        ines.post(
            "/api/v1/account/app-passwords",
            "{\"label\": \"x\", \"password\": \"still-water\"}",
            "X-XSRF-TOKEN",
            "forged");
    assertThat(answer.status()).isEqualTo(403);
    assertThat(answer.text()).contains("XSRF-TOKEN");
  }

  @Test
  public void workersChangeWhatTheirRoleAllowsAndNothingElse() {
    long tam = hana.idOf("people", "Tam Birtles");
    long id =
        hana.post(
                "/api/v1/records",
                "{\"title\": \"Roles\", \"due\": {\"at\": \"2026-11-30T12:00\"}, \"people\": [{\"role\": 1,"
                    + " \"person\": "
                    + tam
                    + "}], \"details\": {\"gate code\": \"hook 9911\", \"quote\": \"300 agreed\"}}")
            .expect(201)
            .json()
            .get("record")
            .get("id")
            .asLong();
    Api support = Api.of(server, "tam");
    String address = "/api/v1/records/" + id;
    String tag = support.get(address).expect(200).header("ETag");
    assertThat(support.get(address).text())
        .doesNotContain("hook 9911")
        .doesNotContain("300 agreed");
    support.patch(address, "{\"due\": {\"date\": \"2026-12-01\"}}", "If-Match", tag).expect(403);
    support.patch(address, "{\"details\": {\"gate code\": null}}", "If-Match", tag).expect(403);
    support.patch(address, "{\"title\": \"Mine\"}", "If-Match", tag).expect(403);
    support.patch(address, "{\"state\": \"CANCELLED\"}", "If-Match", tag).expect(403);
    support.patch(address, "{\"details\": {\"notes\": \"seen\"}}", "If-Match", tag).expect(200);
    String next = support.get(address).header("ETag");
    support.patch(address, "{\"state\": \"DONE\"}", "If-Match", next).expect(200);
    assertThat(
            server
                .database()
                .query("select value from detail where key = 'gate code' and record = " + id))
        .as("a detail they cannot see survives")
        .containsExactly("hook 9911");
    ines.post("/api/v1/records", "{\"title\": \"x\"}").expect(403);
    ines.post("/api/v1/people", "{\"name\": \"x\"}").expect(403);
    ines.post("/api/v1/teams", "{\"name\": \"x\"}").expect(403);
  }

  @Test
  public void aTeamCoordinatorMakesRecordsForTheirTeamOnly() {
    Api marguerite = Api.of(server, "marguerite");
    long nell = hana.idOf("people", "Nell Ashdown");
    long tam = hana.idOf("people", "Tam Birtles");
    String body = "{\"title\": \"Team\", \"people\": [{\"role\": 0, \"person\": %d}]}";
    marguerite.post("/api/v1/records", body.formatted(nell)).expect(201);
    marguerite.post("/api/v1/records", body.formatted(tam)).expect(403);
  }

  @Test
  public void twoWhoChangeOneRecordSeeEachOthersWords() {
    long id =
        hana.post("/api/v1/records", "{\"title\": \"Both\", \"details\": {\"phone\": \"1\"}}")
            .expect(201)
            .json()
            .get("record")
            .get("id")
            .asLong();
    String address = "/api/v1/records/" + id;
    String tag = hana.get(address).header("ETag");
    hana.patch(address, "{\"title\": \"Hers\"}", "If-Match", tag).expect(200);
    JsonNode refused =
        hana.patch(address, "{\"title\": \"Mine\"}", "If-Match", tag).expect(412).json();
    assertThat(refused.get("theirs").get("title").asString()).isEqualTo("Hers");
    assertThat(refused.get("mine").get("title").asString()).isEqualTo("Mine");
    hana.patch(address, "{\"title\": \"Mine\"}", "If-Match", refused.get("theirsTag").asString())
        .expect(200);
    hana.patch(address, "{\"title\": \"No tag\"}", "If-Match", Api.LEFT_OUT).expect(428);
  }

  @Test
  public void theSameKeyIsDoneOnce() {
    String body = "{\"title\": \"Once\"}";
    JsonNode first =
        hana.post("/api/v1/records", body, "Idempotency-Key", "once").expect(201).json();
    JsonNode again =
        hana.post("/api/v1/records", body, "Idempotency-Key", "once").expect(201).json();
    assertThat(again.get("record")).isEqualTo(first.get("record"));
    assertThat(again.get("act")).isEqualTo(first.get("act"));
    hana.post("/api/v1/records", "{\"title\": \"Other\"}", "Idempotency-Key", "once").expect(422);
    assertThat(server.database().query("select count(*) from detail where value = 'Once'"))
        .containsExactly("1");
  }

  @Test
  public void whoLeavesIsOutAtOnce() {
    String link = invite("Joss Hallard", "WORKER").replace("/welcome/", "/api/v1/invitations/");
    Api joss = new Api(server);
    joss.get("/api/v1/session");
    joss.post(link, "{\"password\": \"long enough for it\"}").expect(204);
    joss.signIn("joss.hallard@quillwater.example", "long enough for it").expect(200);
    String text =
        joss.post(
                "/api/v1/account/app-passwords",
                "{\"label\": \"p\", \"password\": \"long enough for it\"}")
            .json()
            .get("text")
            .asString();
    joss.withAppPassword("joss.hallard@quillwater.example:" + text);
    joss.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(207);
    hana.patch("/api/v1/people/" + hana.idOf("people", "Joss Hallard"), "{\"standing\": \"LEFT\"}")
        .expect(204);
    joss.get("/api/v1/records").expect(401);
    joss.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(401);
  }

  @Test
  public void theLastCoordinatorStays() {
    long id = hana.idOf("people", "Hana Vesely");
    hana.patch("/api/v1/people/" + id, "{\"right\": \"WORKER\"}").expect(409);
  }

  @Test
  public void anEmptyHouseGivesOneLinkToItsFirstCoordinator() throws java.io.IOException {
    java.nio.file.Path link =
        java.nio.file.Path.of(Database.environment("MELLOW_TEST_WORK"), "first-link");
    try (Server empty = Server.started(Database.empty(), "--mellow.setup-link=" + link)) {
      Api first = new Api(empty);
      assertThat(first.get("/api/v1/session").json().has("demo")).isFalse();
      String path =
          java.nio.file.Files.readString(link).replace("/welcome/", "/api/v1/invitations/");
      String body =
          "{\"name\": \"Ada Quill\", \"email\": \"ada@house.example\", \"password\": \"long enough for it\"}";
      first.post(path, body).expect(204);
      first.post(path, body).expect(404);
      first.signIn("ada@house.example", "long enough for it").expect(200);
      assertThat(first.get("/api/v1/people").json()).hasSize(1);
      first
          .post("/api/v1/records", "{\"title\": \"First\", \"due\": {\"date\": \"2026-12-01\"}}")
          .expect(201);
      assertThat(empty.stop()).isLessThan(Duration.ofSeconds(12));
    }
  }
}
