package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What real clients demand of a CalDAV server, each with its section. */
public class CalDavTest extends OnDemo {

  private static final String PRINCIPAL =
      "<propfind xmlns='DAV:'><prop><current-user-principal/></prop></propfind>";

  private Api ines;
  private Calendars calendars;

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
    calendars = new Calendars(ines);
  }

  @DataProvider
  Object[][] methods() {
    return new Object[][] {
      {"OPTIONS"},
      {"GET"},
      {"PROPFIND"},
      {"PROPPATCH"},
      {"REPORT"},
      {"PUT"},
      {"DELETE"},
      {"MKCALENDAR"},
      {"POST"},
      {"COPY"}
    };
  }

  /** RFC 9110 §11.6.1. */
  @Test(dataProvider = "methods")
  public void withoutCredentialsEveryMethodIsChallenged(String method) {
    Api.Answer answer =
        new Api(server).send(method, "/dav/calendars/", method.equals("GET") ? null : PRINCIPAL);
    assertThat(answer.status()).isEqualTo(401);
    assertThat(answer.header("WWW-Authenticate")).startsWith("Basic");
  }

  /** RFC 6764 §5. */
  @Test
  public void theWellKnownAddressRedirectsAnyMethod() {
    for (String method : List.of("GET", "PROPFIND")) {
      Api.Answer answer =
          ines.dav(method, "/.well-known/caldav", method.equals("GET") ? null : PRINCIPAL);
      assertThat(answer.status()).isEqualTo(301);
      assertThat(answer.header("Location")).isEqualTo(server.url("/dav/"));
    }
  }

  @Test
  public void discoveryLeadsFromTheRootToTheHome() {
    String root = ines.dav("PROPFIND", "/dav/", PRINCIPAL, "Depth", "0").expect(207).text();
    String principal = root.replaceAll("(?s).*<d:href>(/dav/principals/\\d+/)</d:href>.*", "$1");
    String home =
        ines.dav(
                "PROPFIND",
                principal,
                "<A:propfind xmlns:A='DAV:'><A:prop><B:calendar-home-set"
                    + " xmlns:B='urn:ietf:params:xml:ns:caldav'/><A:nonsense/></A:prop></A:propfind>",
                "Depth",
                "0",
                "Content-Type",
                "text/xml; charset=\"utf-8\"")
            .expect(207)
            .text();
    assertThat(home).contains("<d:href>/dav/calendars/</d:href>");
    assertThat(home).as("unknown properties, RFC 4918 §9.1").contains("404 Not Found");
  }

  @Test
  public void somebodyElsesCalendarIsAsIfItWereNotThere() {
    String masters = new Calendars(hana).href("Master");
    Api.Answer there = ines.dav("PROPFIND", masters, PRINCIPAL, "Depth", "0");
    Api.Answer nowhere = ines.dav("PROPFIND", "/dav/calendars/999999/", PRINCIPAL, "Depth", "0");
    assertThat(there.status()).isEqualTo(404);
    assertThat(nowhere.status()).isEqualTo(404);
    assertThat(there.text().replaceAll("\"request\":\"\\w+\"", ""))
        .isEqualTo(nowhere.text().replaceAll("\"request\":\"\\w+\"", ""));
  }

  /** RFC 3744 §7.1.1. */
  @Test
  public void aReadOnlyCalendarRefusesWritesAndSaysWhy() {
    String href = calendars.href("Ines Okafor, own");
    for (String method : List.of("PUT", "DELETE", "MKCALENDAR", "POST", "MOVE", "LOCK")) {
      Api.Answer answer = ines.dav(method, href, "BEGIN:VCALENDAR");
      assertThat(answer.status()).as(method).isEqualTo(403);
      assertThat(answer.text()).contains("need-privileges");
    }
    String set =
        "<propertyupdate xmlns='DAV:'><set><prop><displayname>x</displayname></prop></set></propertyupdate>";
    assertThat(ines.dav("PROPPATCH", href, set).expect(207).text()).contains("403 Forbidden");
  }

  @Test
  public void tagsAreTheSameEverywhereAndAnswerNotModified() {
    String href = calendars.href("Due times");
    String object = calendars.sync(href, "").live().keySet().iterator().next();
    Api.Answer got = ines.dav("GET", object, null).expect(200);
    String tag = got.header("ETag");
    assertThat(ines.dav("HEAD", object, null).header("ETag")).isEqualTo(tag);
    assertThat(ines.dav("PROPFIND", object, null, "Depth", "0").text()).contains(tag);
    assertThat(ines.dav("GET", object, null, "If-None-Match", tag).status()).isEqualTo(304);
    assertThat(ines.dav("GET", object, null).bytes()).isEqualTo(got.bytes());
  }

  private static String sync(String token) {
    return "<sync-collection xmlns='DAV:'><sync-token>"
        + token
        + "</sync-token><sync-level>1</sync-level><prop><getetag/></prop></sync-collection>";
  }

  /** RFC 6578 §3.2. */
  @Test
  public void aBadTokenIsRefusedByItsName() {
    String href = calendars.href("Due times");
    String good = calendars.sync(href, "").token();
    for (String bad :
        List.of(
            "nonsense", good.replaceAll("\\d+$", "99999999"), good.replace("sync:", "sync:0"))) {
      Api.Answer answer = ines.dav("REPORT", href, sync(bad));
      assertThat(answer.status()).as(bad).isEqualTo(403);
      assertThat(answer.text()).contains("valid-sync-token");
    }
    ines.dav("REPORT", href, sync(good), "Depth", "1").expect(207);
  }

  @Test
  public void aLimitedSyncGoesOnWhereItWasCut() {
    String href = calendars.href("Due times");
    int all = calendars.sync(href, "").live().size();
    String token = "";
    int seen = 0;
    for (int round = 0; round < 100; round++) {
      String answer =
          ines.dav(
                  "REPORT",
                  href,
                  "<sync-collection xmlns='DAV:'><sync-token>"
                      + token
                      + "</sync-token><sync-level>1</sync-level><limit><nresults>7</nresults></limit>"
                      + "<prop><getetag/></prop></sync-collection>")
              .expect(207)
              .text();
      seen += answer.split("<d:getetag>", -1).length - 1;
      token = answer.replaceAll("(?s).*<d:sync-token>(.*)</d:sync-token>.*", "$1");
      if (!answer.contains("507")) {
        assertThat(seen).isEqualTo(all);
        return;
      }
    }
    throw new AssertionError("the sync never ended");
  }

  @Test
  public void multigetAnswersMissingOnesInside() {
    String href = calendars.href("Due times");
    String object = calendars.sync(href, "").live().keySet().iterator().next();
    String answer =
        ines.dav(
                "REPORT",
                href,
                "<c:calendar-multiget xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><prop>"
                    + "<getetag/><c:calendar-data/></prop><href>"
                    + object
                    + "</href><href>"
                    + href
                    + "00000000-0000-0000-0000-000000000000.ics</href></c:calendar-multiget>")
            .expect(207)
            .text();
    assertThat(answer).contains("BEGIN:VEVENT").contains("404 Not Found");
  }

  private String query(String range) {
    return ines.dav(
            "REPORT",
            calendars.href("Due times"),
            "<c:calendar-query xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><prop><getetag/>"
                + "<c:calendar-data><c:expand start='20260101T000000Z' end='20280101T000000Z'/>"
                + "</c:calendar-data></prop><c:filter><c:comp-filter name='VCALENDAR'>"
                + "<c:comp-filter name='VEVENT'><c:time-range "
                + range
                + "/></c:comp-filter></c:comp-filter></c:filter></c:calendar-query>")
        .expect(207)
        .text();
  }

  /** RFC 4791 §9.9: half-open on both sides. */
  @Test
  public void timeRangesAreHalfOpen() {
    long place = hana.idOf("places", "Osier Weir");
    hana.post(
            "/api/v1/records",
            "{\"title\": \"Range\", \"place\": "
                + place
                + ", \"due\": {\"at\": \"2027-06-10T13:00\"}}")
        .expect(201);
    // Due at 13:00 in summer time: the mark stands from 11:45 to 12:00 UTC.
    assertThat(query("start='20270610T114500Z' end='20270610T120000Z'")).contains("Range");
    assertThat(query("start='20270610T120000Z' end='20270610T130000Z'")).doesNotContain("Range");
    assertThat(query("start='20270610T110000Z' end='20270610T114500Z'")).doesNotContain("Range");
    assertThat(query("start='20270610T114500Z'")).contains("DTSTART:20270610T114500Z");
  }

  @Test
  public void freeBusyTellsNothingOfFreeEntries() {
    long person = hana.idOf("people", "Ines Okafor");
    hana.record(
        "{\"title\": \"Free\", \"due\": {\"at\": \"2027-05-10T10:00\"}, \"people\": [{\"role\": 0, \"person\": "
            + person
            + "}]}");
    String answer =
        ines.dav(
                "REPORT",
                calendars.href("Ines Okafor, own"),
                "<c:free-busy-query xmlns:c='urn:ietf:params:xml:ns:caldav'><c:time-range"
                    + " start='20270501T000000Z' end='20270511T000000Z'/></c:free-busy-query>")
            .expect(200)
            .text();
    assertThat(answer).contains("BEGIN:VFREEBUSY").doesNotContain("FREEBUSY;FBTYPE");
  }

  @Test
  public void documentTypesAndMalformedBodiesAreRefused() {
    String href = calendars.href("Due times");
    String dtd = "<!DOCTYPE x [<!ENTITY e SYSTEM 'file:///etc/hostname'>]>" + sync("&e;");
    for (String body : List.of(dtd, "<a><b></a>", "no xml", sync("x").replace("DAV:", ""))) {
      int status = ines.dav("REPORT", href, body).status();
      assertThat(status).as(body).isBetween(400, 499);
    }
    assertThat(ines.dav("REPORT", href, "<a>" + " ".repeat(1_100_000) + "</a>").status())
        .isEqualTo(413);
    assertThat(ines.dav("PROPFIND", href, null, "Depth", "infinity").status()).isEqualTo(403);
  }

  @Test
  public void aPutOfAnyNameIsRefusedByPrivilege() {
    String calendar = "/dav/calendars/" + ines.idOf("calendars", "Ines Okafor, own") + "/";
    for (String name : List.of("new.ics", "whatever", "a%20b.ics", "x.y.z", "%C3%BC.ics")) {
      for (String method : List.of("PUT", "DELETE")) {
        Api.Answer answer = ines.dav(method, calendar + name, "BEGIN:VCALENDAR");
        assertThat(answer.status()).as(method + " " + name).isEqualTo(403);
        assertThat(answer.text()).contains("need-privileges");
      }
    }
    String others = "/dav/calendars/" + hana.idOf("calendars", "Hana Vesely, own") + "/new.ics";
    assertThat(ines.dav("PUT", others, "BEGIN:VCALENDAR").status()).isEqualTo(404);
  }

  @Test
  public void aWithdrawnAppPasswordOpensNothingMore() {
    String made =
        ines.post(
                "/api/v1/account/app-passwords",
                "{\"label\": \"Phone\", \"password\": \"still-water\"}")
            .expect(201)
            .text();
    String text = Api.JSON.readTree(made).get("text").asString();
    long id = Api.JSON.readTree(made).get("id").asLong();
    Api phone = new Api(server).withAppPassword("ines@quillwater.example:" + text);
    phone.dav("PROPFIND", "/dav/", PRINCIPAL, "Depth", "0").expect(207);
    ines.delete("/api/v1/account/app-passwords/" + id).expect(204);
    phone.dav("PROPFIND", "/dav/", PRINCIPAL, "Depth", "0").expect(401);
    assertThat(ines.get("/api/v1/account/app-passwords").text()).doesNotContain(text);
  }
}
