package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Stream;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A canary sits in each detail. Every operation of the API and of CalDAV is called by somebody a
 * canary is for, who finds it, and by two workers it is not for, who never do, in no disguise.
 */
public class CanaryTest {

  /** For office: quote. For people on it: contact, phone. For the Lead: gate code. */
  private static final Map<String, String> CANARIES =
      Map.of(
          "quote", "cnrquote7",
          "contact", "cnrcontact7",
          "phone", "cnrphone7",
          "gate code", "cnrgate7",
          "title", "cnrprivate7");

  private static final List<String> OUTSIDERS = List.of("tam", "wren");

  @Test
  public void noOperationShowsWhatItMayNot() {
    try (Outside outside = Outside.start();
        Server server = Server.started(Database.demo(), options(outside))) {
      assertThat(run(server, outside, false))
          .as("canaries shown to workers they are not for")
          .isEmpty();
    }
  }

  @Test
  public void theControlGoesRed() {
    try (Outside outside = Outside.start();
        Server server =
            Server.started(
                Database.demo(),
                options(outside, "--spring.profiles.active=settable-clock,sight-control"))) {
      assertThat(run(server, outside, true)).as("what allow-all shows").isNotEmpty();
    }
  }

  private final Map<String, Function<Api, Api.Answer>> operations = new LinkedHashMap<>();
  private final Map<String, String> finds = new LinkedHashMap<>();

  private static String[] options(Outside outside, String... more) {
    return Stream.concat(outside.options().stream(), Stream.of(more)).toArray(String[]::new);
  }

  /** What was shown that may not be; that something was is all that a control tells. */
  private List<String> run(Server server, Outside outside, boolean untilSomethingIs) {
    operations.clear();
    finds.clear();
    Api hana = Api.of(server, "hana").warned();
    Api.of(server, "hana"); // One session more, which is ended.
    Api ines = Api.of(server, "ines");
    long lead = hana.idOf("people", "Ines Okafor");
    long open = make(hana, "Canary", lead, false);
    long secret = make(hana, CANARIES.get("title"), lead, true);
    long act =
        hana.patch(
                "/api/v1/records/" + open,
                "{\"due\": {\"at\": \"2026-11-28T10:00\"}, \"details\": {\"contact\": \"cnrcontact7 b\"}}",
                "If-Match",
                "*")
            .expect(200)
            .json()
            .get("act")
            .asLong();
    ReleasesTest.ticketsWaitForAYes(hana, true);
    hana.change(open, "{\"due\": {\"at\": \"2026-11-28T11:00\"}}");
    // Before what ends a session.
    tell(hana, lead);
    define(hana, open, secret, act, lead);
    operations.putAll(new DeadlineOperations(hana, secret, CANARIES.get("title")).all());
    cover(hana);
    links(hana, outside);
    Set<String> known = new TreeSet<>();
    JsonNode document = ContractTest.committed();
    for (Map.Entry<String, JsonNode> path : document.get("paths").properties()) {
      path.getValue()
          .propertyNames()
          .forEach(m -> known.add(m.toUpperCase() + " " + path.getKey()));
    }
    Set<String> called = new TreeSet<>();
    operations.keySet().forEach(name -> called.add(name.split(" #")[0]));
    assertThat(called).as("every operation is called").containsAll(known);

    List<String> shown = new ArrayList<>();
    for (String who : OUTSIDERS) {
      Api outsider = Api.of(server, who);
      for (var one : operations.entrySet()) {
        look(one.getKey(), who, one.getValue().apply(outsider), shown);
        if (untilSomethingIs && !shown.isEmpty()) {
          return shown;
        }
      }
      calendars(outsider, who, shown);
    }
    operations.forEach(
        (name, call) -> {
          Api.Answer answer = call.apply(name.contains("#lead") ? ines : hana);
          assertThat(answer.status()).as(name + ": " + answer.text()).isBetween(200, 299);
          if (finds.containsKey(name)) {
            assertThat(answer.text()).as(name).contains(finds.get(name));
          }
        });
    List<String> none = new ArrayList<>();
    String all = calendars(ines, "ines", none);
    assertThat(all).contains("cnrgate7").contains("cnrphone7").contains("cnrprivate7");
    return shown;
  }

  private static long make(Api hana, String title, long lead, boolean isPrivate) {
    return hana.post(
            "/api/v1/records",
            """
            {"title": "%s", "private": %s, "source": "canaries", "sourceId": "%s", "due": {"at": "2026-11-27T10:00"},
             "people": [{"role": 0, "person": %d}], "details": {"contact": "cnrcontact7",
             "phone": "cnrphone7", "gate code": "cnrgate7", "quote": "cnrquote7"}}
            """
                .formatted(title, isPrivate, isPrivate ? "secret" : "open", lead))
        .expect(201)
        .json()
        .get("record")
        .get("id")
        .asLong();
  }

  /** A coordinator's own calendar is copied, and its titles are changed over there. */
  private void cover(Api hana) {
    String duty =
        """
        {"name": "Canary watch", "place": 1, "spans": [
          {"weekdays": [1], "from": "08:00", "until": "09:00"}]}
        """;
    String span = "start=2026-11-30T08:00:00Z&end=2026-11-30T09:00:00Z";
    find("GET /api/v1/duties", a -> a.get("/api/v1/duties"), "Swing bridge");
    call("POST /api/v1/duties", a -> a.post("/api/v1/duties", duty));
    call("PUT /api/v1/duties/{id}", a -> a.put("/api/v1/duties/" + watch(a), duty));
    long ines = 2;
    String skills = "/api/v1/people/" + ines + "/skills";
    call("GET /api/v1/people/{id}/skills", a -> a.get(skills));
    call(
        "PUT /api/v1/people/{id}/skills",
        a -> a.put(skills, "{\"skills\": [{\"skill\": \"sluice\"}]}"));
    find(
        "GET /api/v1/cover",
        a -> a.get("/api/v1/cover?from=2026-11-30&until=2026-12-01"),
        "Canary watch");
    find(
        "GET /api/v1/cover/who-could",
        a -> a.get("/api/v1/cover/who-could?ask=duty:" + watch(a) + "&" + span),
        "Ines Okafor");
    call(
        "POST /api/v1/cover/give",
        a ->
            a.post(
                "/api/v1/cover/give",
                """
                {"ask": "duty:%d", "start": "2026-11-30T08:00:00Z", "end": "2026-11-30T09:00:00Z",
                 "person": 1}
                """
                    .formatted(watch(a))));
    String range = "?from=2026-11-25&until=2026-12-09";
    String busy = "\"visits\": [{\"start\": \"2026-11-30T06:00\", \"end\": \"2026-12-02T20:00\"}]";
    String asked = "{%s\"change\": {%s%s}}";
    call(
        "POST /api/v1/cover/trial",
        a ->
            a.post(
                "/api/v1/cover/trial",
                asked.formatted("", "\"kind\": \"SHIFT\", \"title\": \"Tried\", ", busy)));
    call(
        "POST /api/v1/cover/trial #changed",
        a -> a.post("/api/v1/cover/trial", asked.formatted("\"record\": 1, ", "", busy)));
    call("GET /api/v1/cover/fill", a -> a.get("/api/v1/cover/fill" + range));
    JsonNode twice = clash(hana, range);
    String key = twice.get("key").asString();
    JsonNode held = twice.get("items").get(0);
    String visit =
        "record=%d&visit=%d&from=%d"
            .formatted(
                held.get("record").asLong(),
                held.get("visit").asInt(),
                twice.get("person").asLong());
    String days = "&from=2026-11-25&until=2026-12-09";
    call("GET /api/v1/cover/left", a -> a.get("/api/v1/cover/left?person=2" + days));
    call(
        "GET /api/v1/cover/when-could",
        a -> a.get("/api/v1/cover/when-could?person=2&minutes=60" + days));
    call("GET /api/v1/cover/who-could-take", a -> a.get("/api/v1/cover/who-could-take?" + visit));
    call(
        "POST /api/v1/cover/let-stand",
        a ->
            a.post(
                "/api/v1/cover/let-stand",
                """
                {"clash": "%s", "from": "2026-11-25", "until": "2026-12-09", "reason": "once"}
                """
                    .formatted(key)));
    call("DELETE /api/v1/cover/let-stand/{clash}", a -> a.delete("/api/v1/cover/let-stand/" + key));
    call("GET /api/v1/cover/skills-ending", a -> a.get("/api/v1/cover/skills-ending"));
    call("GET /api/v1/cover/loads", a -> a.get("/api/v1/cover/loads?" + days.substring(1)));
    call(
        "GET /api/v1/cover/swaps",
        a -> a.get("/api/v1/cover/swaps?" + visit.replace("from", "person")));
    String lends = "{\"title\": \"To swap\", \"people\": [{\"role\": 0, \"person\": %d}]}";
    long one = hana.record(lends.formatted(2));
    long other = hana.record(lends.formatted(3));
    call(
        "POST /api/v1/cover/swap",
        a ->
            a.post(
                "/api/v1/cover/swap",
                """
                {"sides": [{"record": %d, "visit": 1, "person": 2},
                  {"record": %d, "visit": 1, "person": 3}]}
                """
                    .formatted(one, other)));
    call(
        "POST /api/v1/cover/hand-over",
        a ->
            a.post(
                "/api/v1/cover/hand-over",
                "{\"record\": %d, \"visit\": %d, \"from\": %d, \"to\": 1}"
                    .formatted(
                        held.get("record").asLong(),
                        held.get("visit").asInt(),
                        twice.get("person").asLong())));
    call("GET /api/v1/places/{id}/terms", a -> a.get("/api/v1/places/1/terms"));
    call("PUT /api/v1/places/{id}/terms", a -> a.put("/api/v1/places/1/terms", "{}"));
    call("GET /api/v1/regions", a -> a.get("/api/v1/regions"));
    call("POST /api/v1/regions", a -> a.post("/api/v1/regions", "{\"name\": \"Reed Shore\"}"));
    call(
        "PUT /api/v1/regions/{id}",
        a -> a.put("/api/v1/regions/" + reedShore(a), "{\"name\": \"Reeds\", \"holidays\": []}"));
    call("DELETE /api/v1/regions/{id}", a -> a.delete("/api/v1/regions/" + reedShore(a)));
    call(
        "POST /api/v1/regions/read",
        a ->
            a.post(
                "/api/v1/regions/read",
                "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:x\nDTSTART;VALUE=DATE:20261225\n"
                    + "END:VEVENT\nEND:VCALENDAR\n",
                "Content-Type",
                "text/calendar"));
    call("GET /api/v1/days-off", a -> a.get("/api/v1/days-off?" + days.substring(1)));
    call("GET /api/v1/places/{id}/days", a -> a.get("/api/v1/places/1/days"));
    call("PUT /api/v1/places/{id}/days", a -> a.put("/api/v1/places/1/days", "{}"));
    call("GET /api/v1/house/days", a -> a.get("/api/v1/house/days"));
    call("PUT /api/v1/house/days", a -> a.put("/api/v1/house/days", "{}"));
    call("GET /api/v1/settled", a -> a.get("/api/v1/settled"));
    call("GET /api/v1/limits", a -> a.get("/api/v1/limits"));
    call("GET /api/v1/margins", a -> a.get("/api/v1/margins"));
    call("PUT /api/v1/margins", a -> a.put("/api/v1/margins", "{\"margins\": []}"));
    call("PUT /api/v1/limits", a -> a.put("/api/v1/limits", "{\"periodWeeks\": 0}"));
    call("DELETE /api/v1/duties/{id}", a -> a.delete("/api/v1/duties/" + watch(a)));
  }

  private static long reedShore(Api asker) {
    for (JsonNode one : asker.get("/api/v1/regions").json()) {
      if (one.path("name").asString("").startsWith("Reed")) {
        return one.get("id").asLong();
      }
    }
    return 0;
  }

  /** Two tentative works at once, which may be let stand. */
  private static JsonNode clash(Api hana, String range) {
    for (JsonNode one : hana.get("/api/v1/cover" + range).expect(200).json().get("clashes")) {
      if (one.get("kind").asString().equals("DOUBLE") && !one.get("never").asBoolean()) {
        return one;
      }
    }
    throw new AssertionError("nothing tentative clashes in the demo");
  }

  /** A worker is told of no duty, and asks for one there is. */
  private static long watch(Api asker) {
    Api.Answer duties = asker.get("/api/v1/duties");
    return duties.status() == 200 ? asker.idOf("duties", "Canary watch") : 1;
  }

  private void links(Api hana, Outside outside) {
    Account account = outside.account("hana");
    Collection work = Outside.work(account);
    long link = outside.link(hana, "Hana Vesely, own", account, "");
    long me = hana.idOf("people", "Hana Vesely");
    List<String> proposals = new ArrayList<>();
    for (String title : List.of("Copied once", "Copied twice")) {
      long record =
          hana.record(
              """
              {"kind": "SHIFT", "title": "%s",
               "visits": [{"start": "2026-11-29T10:00", "end": "2026-11-29T12:00"}],
               "people": [{"role": 0, "person": %d}], "details": {"phone": "cnrphone7"}}
              """
                  .formatted(title, me));
      Outside.edit(work, title, title, title + " cnrcontact7");
      Outside.again(hana);
      Await.until("it is proposed", Duration.ofSeconds(30), () -> !changes(hana, record).isEmpty());
      proposals.add("/api/v1/outside-changes/" + changes(hana, record).get(0).get("id").asLong());
    }
    String body =
        """
        {"address": "%s", "user": "hana", "password": "%s"}
        """
            .formatted(outside.host().url(), Outside.PASSWORD);
    String one = "/api/v1/links/" + link;
    call("POST /api/v1/links/try", a -> a.post("/api/v1/links/try", body));
    call(
        "POST /api/v1/links/look",
        a -> a.post("/api/v1/links/look", body.replace("\"}", "\", \"calendars\": []}")));
    find("GET /api/v1/links/decided", a -> a.get("/api/v1/links/decided"), "Hana Vesely");
    call("POST /api/v1/links/{id}/stop", a -> a.post(one + "/stop", "{}"));
    call("POST /api/v1/links/{id}/go-on", a -> a.post(one + "/go-on", "{}"));
    call("GET /api/v1/copies/waiting", a -> a.get("/api/v1/copies/waiting"));
    call(
        "POST /api/v1/links",
        a -> a.post("/api/v1/links", body.replace("\"}", "\", \"calendars\": []}")));
    find("GET /api/v1/links", a -> a.get("/api/v1/links"), "Hana Vesely, own");
    call("PATCH /api/v1/links/{id}", a -> a.patch(one, "{\"calendars\": []}"));
    call("POST /api/v1/links/{id}/again", a -> a.post(one + "/again", "{}"));
    long calendar =
        hana.get("/api/v1/links").json().get(0).get("calendars").get(0).get("id").asLong();
    find(
        "POST /api/v1/links/{id}/calendars/{calendar}/prove",
        a -> a.post(one + "/calendars/" + calendar + "/prove", "{}"),
        "read back and removed");
    find("GET /api/v1/copies", a -> a.get("/api/v1/copies"), "Copied twice");
    call("GET /api/v1/copies/held", a -> a.get("/api/v1/copies/held"));
    call("POST /api/v1/copies/go-on", a -> a.post("/api/v1/copies/go-on", "{}"));
    call("POST /api/v1/copies/send-now", a -> a.post("/api/v1/copies/send-now", "{}"));
    find("GET /api/v1/outside-changes", a -> a.get("/api/v1/outside-changes"), "cnrcontact7");
    call("POST /api/v1/outside-changes/{id}/take", a -> a.post(proposals.get(0) + "/take", "{}"));
    call(
        "POST /api/v1/outside-changes/{id}/put-back",
        a -> a.post(proposals.get(1) + "/put-back", "{}"));
    find("GET /api/v1/links/{id}/standing", a -> a.get(one + "/standing"), "Copied twice");
    call("DELETE /api/v1/links/{id}", a -> a.delete(one));
    long left = outside.link(hana, "Hana Vesely, own", outside.account("hana.left"), "");
    call("POST /api/v1/links/{id}/leave", a -> a.post("/api/v1/links/" + left + "/leave", "{}"));
  }

  private static JsonNode changes(Api asker, long record) {
    return asker.get("/api/v1/outside-changes?state=PROPOSED&record=" + record).expect(200).json();
  }

  /** Work that the lead loses, and work of who has no account and is told. */
  private void tell(Api hana, long lead) {
    String work =
        "{\"title\": \"%s\", \"private\": true, \"due\": {\"at\": \"2026-11-27T10:00\"},"
            + " \"people\": [{\"role\": 0, \"person\": %d}]}";
    long lost = hana.record(work.formatted(CANARIES.get("title"), lead));
    hana.change(lost, "{\"state\": \"CANCELLED\"}");
    call(
        "POST /api/v1/my-day/lost/{record}/seen #lead",
        a -> a.post("/api/v1/my-day/lost/" + lost + "/seen", "{}"));
    long joss = hana.idOf("people", "Joss Hallard");
    long told = hana.record(work.formatted(CANARIES.get("title"), joss));
    call(
        "POST /api/v1/records/{id}/told",
        a ->
            a.post(
                "/api/v1/records/" + told + "/told",
                "{\"person\": %d, \"how\": \"PHONE\"}".formatted(joss)));
    find(
        "GET /api/v1/records/{id}/told",
        a -> a.get("/api/v1/records/" + told + "/told"),
        "Joss Hallard");
  }

  private void define(Api hana, long open, long secret, long act, long lead) {
    String one = "/api/v1/records/{id}";
    find("GET " + one, a -> a.get("/api/v1/records/" + open), "cnrquote7");
    find("GET " + one + " #lead", a -> a.get("/api/v1/records/" + open), "cnrgate7");
    find("GET " + one + " #private", a -> a.get("/api/v1/records/" + secret), "cnrprivate7");
    find("GET " + one + "/sight", a -> a.get("/api/v1/records/" + open + "/sight"), "cnrquote7");
    String all = hana.get("/api/v1/calendars/" + hana.idOf("calendars", "Master") + ".ics").text();
    String uid = all.substring(all.indexOf("UID:") + 4, all.indexOf("UID:") + 40);
    call("GET /api/v1/open/{entry}", a -> a.get("/api/v1/open/" + uid));
    find("GET /api/v1/records", a -> a.get("/api/v1/records?limit=200"), "cnrquote7");
    call("GET /api/v1/records/facets", a -> a.get("/api/v1/records/facets?find=cnrphone7"));
    find("GET /api/v1/records #find", a -> a.get("/api/v1/records?find=cnrphone7"), "cnrphone7");
    find("GET /api/v1/records #part", a -> a.get("/api/v1/records?find=cnrquo"), "cnrquote7");
    find(
        "GET " + one + "/history",
        a -> a.get("/api/v1/records/" + open + "/history"),
        "cnrcontact7");
    call("GET " + one + "/landings", a -> a.get("/api/v1/records/" + open + "/landings"));
    call(
        "GET " + one + "/landings #private", a -> a.get("/api/v1/records/" + secret + "/landings"));
    find(
        "PATCH " + one,
        a -> a.patch("/api/v1/records/" + open, "{\"tags\": [\"t\"]}", "If-Match", "*"),
        "cnrquote7");
    call(
        "PATCH " + one + " #private",
        a -> a.patch("/api/v1/records/" + secret, "{\"tags\": [\"t\"]}", "If-Match", "*"));
    String days = "/api/v1/board?from=2026-11-23&until=2026-11-30";
    find("GET /api/v1/board", a -> a.get(days), "cnrprivate7");
    find(
        "POST /api/v1/records/several",
        a ->
            a.post(
                "/api/v1/records/several",
                "{\"items\": [{\"record\": %d, \"ifMatch\": \"*\", \"change\": {\"tags\": [\"u\"]}}]}"
                    .formatted(open)),
        "cnrquote7");
    call(
        "POST /api/v1/records/several #look",
        a ->
            a.post(
                "/api/v1/records/several",
                "{\"items\": [{\"record\": %d, \"ifMatch\": \"*\", \"change\": {\"tags\": [\"v\"]}}]}"
                    .formatted(open),
                "Look-First",
                "true"));
    call(
        "PATCH " + one + " #look",
        a ->
            a.patch(
                "/api/v1/records/" + secret,
                "{\"due\": {\"at\": \"2026-11-28T12:00\"}}",
                "If-Match",
                "*",
                "Look-First",
                "true"));
    find(
        "POST /api/v1/records/several #like",
        a ->
            a.post(
                "/api/v1/records/several",
                "{\"items\": [{\"like\": %d, \"make\": {}}]}".formatted(secret)),
        "cnrprivate7");
    find("GET /api/v1/today", a -> a.get("/api/v1/today"), "cnrprivate7");
    find("GET /api/v1/my-day #lead", a -> a.get("/api/v1/my-day"), "cnrgate7");
    call("POST /api/v1/records/{id}/seen", a -> a.post("/api/v1/records/" + open + "/seen", "{}"));
    call(
        "POST /api/v1/records/{id}/seen #private",
        a -> a.post("/api/v1/records/" + secret + "/seen", "{}"));
    find("GET /api/v1/records.csv", a -> a.get("/api/v1/records.csv"), "cnrquote7");
    find("GET /api/v1/records.ics", a -> a.get("/api/v1/records.ics"), "cnrprivate7");
    call("GET /api/v1/calendars/{id}.csv", a -> calendarFile(a, "csv"));
    call("GET /api/v1/calendars/{id}.ics", a -> calendarFile(a, "ics"));
    call("GET /api/v1/feeds", a -> a.get("/api/v1/feeds"));
    call("POST /api/v1/feeds", CanaryTest::feed);
    call("GET /feeds/{token}.ics", a -> a.get(feed(a).json().get("address").asString()));
    call("DELETE /api/v1/feeds/{id}", CanaryTest::withdrawFeed);
    call("GET /api/v1/account/title", a -> a.get("/api/v1/account/title"));
    call(
        "PUT /api/v1/account/title",
        a -> a.put("/api/v1/account/title", "{\"title\": \"{title} {phone} {quote} {contact}\"}"));
    find("GET /api/v1/releases", a -> a.get("/api/v1/releases"), "cnrphone7");
    call("POST /api/v1/releases", CanaryTest::yes);
    call("GET /api/v1/house", a -> a.get("/api/v1/house"));
    call("PATCH /api/v1/house", a -> a.patch("/api/v1/house", "{\"outsideReason\": \"x\"}"));
    call("GET /api/v1/audit", a -> a.get("/api/v1/audit?detail=phone"));
    call("GET /api/v1/audit/map", a -> a.get("/api/v1/audit/map"));
    call("GET /api/v1/audit.csv", a -> a.get("/api/v1/audit.csv?detail=phone"));
    call("GET /api/v1/shares", a -> a.get("/api/v1/shares"));
    call("POST /api/v1/shares", a -> share(a));
    call("PUT /api/v1/shares/{id}", a -> a.put(ofShare(a), "{\"level\": \"ALL\"}"));
    call("POST /api/v1/shares/{id}/accept", CanaryTest::acceptShare);
    call("DELETE /api/v1/shares/{id}", a -> a.delete(ofShare(a)));
    call(
        "POST /api/v1/files/read",
        a -> a.post("/api/v1/files/read?what=RECORDS", "Id,Title\n1,Oil hinges\n"));
    // Rows with the id of a record that is known to have come from there.
    String rows =
        """
        {"what": "RECORDS", "source": "canaries", "fields": ["id", "title"],
         "rows": [{"row": 2, "cells": ["open", "Canary"]}, {"row": 3, "cells": ["x", "New"]}]}
        """;
    call("POST /api/v1/files/look", a -> a.post("/api/v1/files/look", rows));
    call("POST /api/v1/files/take", a -> a.post("/api/v1/files/take", rows));
    call("GET /api/v1/rules", a -> a.get("/api/v1/rules"));
    call("GET /api/v1/rules/looks/{looked}", CanaryTest::looked);
    call("GET /api/v1/rules/file", a -> a.get("/api/v1/rules/file"));
    call(
        "POST /api/v1/rules/file",
        a -> a.post("/api/v1/rules/file", "rules: []", "Content-Type", "application/yaml"));
    call("GET /api/v1/rules/work", a -> a.get("/api/v1/rules/work"));
    call("POST /api/v1/rules/work/{act}/stop", a -> a.post("/api/v1/rules/work/0/stop", "{}"));
    call("POST /api/v1/rules/work/{act}/go-on", a -> a.post("/api/v1/rules/work/0/go-on", "{}"));
    for (String verb : List.of("look", "try", "take")) {
      call("POST /api/v1/rules/" + verb, a -> ruleSet(a, verb, open));
    }
    call("GET /api/v1/views", a -> a.get("/api/v1/views"));
    call(
        "POST /api/v1/views",
        a -> a.post("/api/v1/views", "{\"name\": \"Mine\", \"query\": \"state=done\"}"));
    call("DELETE /api/v1/views/{id}", CanaryTest::letViewGo);
    call("GET /api/v1/calendars", a -> a.get("/api/v1/calendars"));
    call("GET /api/v1/calendars/week", a -> a.get("/api/v1/calendars/week"));
    String person = "/api/v1/people/" + lead;
    call("GET /api/v1/people/{id}/times", a -> a.get(person + "/times"));
    call(
        "PUT /api/v1/people/{id}/hours",
        a ->
            a.send(
                "PUT",
                person + "/hours",
                "{\"hours\": [{\"weekday\": 1, \"from\": \"07:00\", \"until\": \"16:00\"}]}"));
    call(
        "POST /api/v1/people/{id}/leave",
        a -> a.post(person + "/leave", "{\"first\": \"2027-02-01\"}"));
    call(
        "POST /api/v1/people/{id}/leave/{leave}/agree",
        a -> a.post(person + "/leave/" + leaveOf(a, person) + "/agree", ""));
    call("DELETE /api/v1/people/{id}/leave/{leave}", a -> noLeave(a, person));
    call(
        "PUT /api/v1/people/{id}/days/{day}",
        a -> a.put(person + "/days/2027-02-02", "{\"times\": []}"));
    call("DELETE /api/v1/people/{id}/days/{day}", a -> a.delete(person + "/days/2027-02-02"));
    call("PUT /api/v1/people/{id}/terms", a -> a.put(person + "/terms", "{}"));
    call("POST /api/v1/records", a -> a.post("/api/v1/records", "{\"title\": \"New\"}"));
    call(
        "POST /api/v1/landings",
        a ->
            a.post(
                "/api/v1/landings", "{\"title\": \"New\", \"due\": {\"date\": \"2026-12-01\"}}"));
    find(
        "POST /api/v1/acts/{id}/undo",
        a -> a.post("/api/v1/acts/" + act + "/undo", "{}"),
        "cnrquote7");
    call("GET /api/v1/session", a -> a.get("/api/v1/session"));
    call("POST /api/v1/session", CanaryTest::signInAgain);
    call("DELETE /api/v1/session", CanaryTest::signOutAndIn);
    call("GET /api/v1/find", a -> a.get("/api/v1/find?line=cnr"));
    call("GET /api/v1/people", a -> a.get("/api/v1/people"));
    call("POST /api/v1/people", a -> a.post("/api/v1/people", "{\"name\": \"Somebody\"}"));
    call(
        "PATCH /api/v1/people/{id}",
        a -> a.patch("/api/v1/people/" + lead, "{\"name\": \"Ines Okafor\"}"));
    call(
        "POST /api/v1/people/{id}/invitation",
        a ->
            a.post(
                "/api/v1/people/" + lead + "/invitation",
                "{\"email\": \"ines@quillwater.example\", \"right\": \"WORKER\"}"));
    call("GET /api/v1/teams", a -> a.get("/api/v1/teams"));
    call(
        "POST /api/v1/teams",
        a -> a.post("/api/v1/teams", "{\"name\": \"T" + System.nanoTime() + "\"}"));
    call("PATCH /api/v1/teams/{id}", a -> a.patch("/api/v1/teams/1", "{\"name\": \"Everyone\"}"));
    call(
        "POST /api/v1/teams/{id}/members",
        a -> a.post("/api/v1/teams/1/members", "{\"person\": " + lead + "}"));
    call("DELETE /api/v1/teams/{id}/members/{member}", CanaryTest::leave);
    call("GET /api/v1/places", a -> a.get("/api/v1/places"));
    call(
        "POST /api/v1/places",
        a -> {
          String code = "c" + System.nanoTime() % 100_000_000;
          return a.post(
              "/api/v1/places", "{\"code\": \"" + code + "\", \"name\": \"" + code + "\"}");
        });
    call(
        "PATCH /api/v1/places/{id}",
        a -> a.patch("/api/v1/places/1", "{\"code\": \"L1\", \"name\": \"Lock 1\"}"));
    call("GET /api/v1/roles", a -> a.get("/api/v1/roles"));
    call("GET /api/v1/details", a -> a.get("/api/v1/details"));
    call("GET /api/v1/events", CanaryTest::firstEvent);
    call("GET /api/v1/account/app-passwords", a -> a.get("/api/v1/account/app-passwords"));
    call(
        "POST /api/v1/account/app-passwords",
        a ->
            a.post(
                "/api/v1/account/app-passwords",
                "{\"label\": \"x\", \"password\": \"still-water\"}"));
    call("DELETE /api/v1/account/app-passwords/{id}", CanaryTest::withdraw);
    call("GET /api/v1/account/sessions", a -> a.get("/api/v1/account/sessions"));
    call("DELETE /api/v1/account/sessions/{id}", CanaryTest::endSession);
    call("POST /api/v1/account/password", CanaryTest::changePassword);
    call("GET /api/v1/invitations/{token}", a -> invitation(a, lead, false));
    call("POST /api/v1/invitations/{token}", a -> invitation(a, lead, true));
  }

  /** One that is not this one, where there is any. */
  private static Api.Answer endSession(Api api) {
    String id = "none";
    Api.Answer all = api.get("/api/v1/account/sessions");
    if (all.status() == 200) {
      for (JsonNode one : all.json()) {
        id = one.get("here").asBoolean() ? id : one.get("id").asString();
      }
    }
    return api.delete("/api/v1/account/sessions/" + id);
  }

  private void call(String name, Function<Api, Api.Answer> call) {
    operations.put(name, call);
  }

  private void find(String name, Function<Api, Api.Answer> call, String canary) {
    operations.put(name, call);
    finds.put(name, canary);
  }

  /** The set as it is; whoever may not read it sends nothing. */
  private static Api.Answer ruleSet(Api api, String verb, long record) {
    Api.Answer now = api.get("/api/v1/rules");
    if (now.status() != 200) {
      return api.post("/api/v1/rules/" + verb, "{}");
    }
    ObjectNode set = ((ObjectNode) now.json()).put("record", record);
    JsonNode look = Looking.at(api, set);
    set.put("looked", look.get("looked").asString());
    return api.post("/api/v1/rules/" + verb, set.toString());
  }

  /** What a look of one's own found. */
  private static Api.Answer looked(Api api) {
    Api.Answer now = api.get("/api/v1/rules");
    String token = "none";
    if (now.status() == 200) {
      JsonNode look = api.post("/api/v1/rules/look", now.json().toString()).expect(200).json();
      token = look.get("looked").asString();
    }
    return api.get("/api/v1/rules/looks/" + token);
  }

  /** A yes to all that waits; whoever may not see what waits says it to something. */
  private static Api.Answer yes(Api api) {
    Api.Answer waiting = api.get("/api/v1/releases");
    if (waiting.status() != 200) {
      return api.post("/api/v1/releases", "{\"items\": [{\"entry\": 1, \"as\": \"x\"}]}");
    }
    return api.post(
        "/api/v1/releases",
        ReleasesTest.yes(waiting.json().valueStream().toArray(JsonNode[]::new)));
  }

  private static Api.Answer letViewGo(Api api) {
    JsonNode saved = api.post("/api/v1/views", "{\"name\": \"Gone\", \"query\": \"\"}").json();
    return api.delete("/api/v1/views/" + saved.get("id").asLong());
  }

  private static String email(Api api) {
    return api.get("/api/v1/session").json().get("email").asString();
  }

  private static Api.Answer signInAgain(Api api) {
    return api.signIn(email(api), "still-water");
  }

  private static Api.Answer signOutAndIn(Api api) {
    String email = email(api);
    Api.Answer out = api.delete("/api/v1/session");
    api.signIn(email, "still-water").expect(200);
    return out;
  }

  private static Api.Answer leave(Api api) {
    JsonNode everyone =
        api.get("/api/v1/teams")
            .json()
            .valueStream()
            .filter(t -> t.get("name").asString().equals("Everyone"))
            .findFirst()
            .orElseThrow();
    long member =
        everyone.get("members").get(everyone.get("members").size() - 1).get("id").asLong();
    return api.delete("/api/v1/teams/" + everyone.get("id").asLong() + "/members/" + member);
  }

  private static Api.Answer withdraw(Api api) {
    long id =
        api.post(
                "/api/v1/account/app-passwords",
                "{\"label\": \"y\", \"password\": \"still-water\"}")
            .json()
            .get("id")
            .asLong();
    return api.delete("/api/v1/account/app-passwords/" + id);
  }

  private static Api.Answer noLeave(Api api, String person) {
    return api.delete(person + "/leave/" + leaveOf(api, person));
  }

  private static long leaveOf(Api api, String person) {
    JsonNode leave = api.get(person + "/times").json().path("leave");
    return leave.isEmpty() ? 0 : leave.get(0).get("id").asLong();
  }

  /** Of the first calendar the asker reads. */
  private static Api.Answer calendarFile(Api api, String sort) {
    for (JsonNode calendar : api.get("/api/v1/calendars").json()) {
      if (calendar.get("reads").asBoolean()) {
        return api.get("/api/v1/calendars/" + calendar.get("id").asLong() + "." + sort);
      }
    }
    throw new AssertionError("everybody reads a calendar");
  }

  /** Of the first calendar the asker may make one of. */
  private static Api.Answer feed(Api api) {
    Api.Answer answer = null;
    for (JsonNode calendar : api.get("/api/v1/calendars").json()) {
      answer =
          api.post(
              "/api/v1/feeds",
              "{\"calendar\": %d, \"label\": \"canary\"}".formatted(calendar.get("id").asLong()));
      if (answer.status() == 201) {
        return answer;
      }
    }
    return answer;
  }

  private static Api.Answer withdrawFeed(Api api) {
    feed(api);
    JsonNode feeds = api.get("/api/v1/feeds").json();
    long id = feeds.isEmpty() ? 0 : feeds.get(feeds.size() - 1).get("id").asLong();
    return api.delete("/api/v1/feeds/" + id);
  }

  /** Offers one's own calendar to the first who has no share of it yet. */
  private static Api.Answer share(Api api) {
    Api.Answer last = null;
    for (JsonNode calendar : api.get("/api/v1/calendars").json()) {
      for (JsonNode person : api.get("/api/v1/people").json()) {
        if (last == null || last.status() == 422) {
          last =
              api.post(
                  "/api/v1/shares",
                  "{\"calendar\": %d, \"reader\": %d}"
                      .formatted(calendar.get("id").asLong(), person.get("id").asLong()));
        }
      }
    }
    return last;
  }

  private static String ofShare(Api api) {
    share(api);
    JsonNode shares = api.get("/api/v1/shares").json();
    return "/api/v1/shares/"
        + (shares.isEmpty() ? 0 : shares.get(shares.size() - 1).get("id").asLong());
  }

  /** What is offered to the asker; made by them, if they may, in a calendar they do not read. */
  private static Api.Answer acceptShare(Api api) {
    long me = api.get("/api/v1/session").json().get("person").asLong();
    for (JsonNode calendar : api.get("/api/v1/calendars").json()) {
      Api.Answer made =
          api.post(
              "/api/v1/shares",
              "{\"calendar\": %d, \"reader\": %d}".formatted(calendar.get("id").asLong(), me));
      if (made.status() == 201) {
        return api.post("/api/v1/shares/" + made.json().get("id").asLong() + "/accept", "{}");
      }
    }
    return api.post("/api/v1/shares/0/accept", "{}");
  }

  private static Api.Answer changePassword(Api api) {
    return api.post(
        "/api/v1/account/password", "{\"old\": \"still-water\", \"password\": \"still-water\"}");
  }

  /** Made by whoever may make one; others ask for one that is not. */
  private static Api.Answer invitation(Api api, long person, boolean accept) {
    Api.Answer made =
        api.post(
            "/api/v1/people/" + person + "/invitation",
            "{\"email\": \"ines@quillwater.example\", \"right\": \"WORKER\"}");
    String token =
        made.status() == 201
            ? made.json().get("link").asString().replace("/welcome/", "")
            : "nothing";
    String path = "/api/v1/invitations/" + token;
    return accept ? api.post(path, "{\"password\": \"still-water\"}") : api.get(path);
  }

  private static Api.Answer firstEvent(Api api) {
    return api.firstOfStream("/api/v1/events");
  }

  /** Everything CalDAV serves this person, by every method. */
  private static String calendars(Api api, String who, List<String> shown) {
    StringBuilder all = new StringBuilder();
    Api.Answer home = api.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(207);
    look("PROPFIND home", who, home, shown);
    for (String part : home.text().split("<d:href>")) {
      String href = part.contains("<") ? part.substring(0, part.indexOf('<')) : "";
      if (href.startsWith("/dav/calendars/") && href.length() > "/dav/calendars/".length()) {
        String cal = "xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'";
        String prop = "<prop><getetag/><c:calendar-data/></prop>";
        List<Api.Answer> answers =
            List.of(
                api.dav("PROPFIND", href, null, "Depth", "1"),
                api.dav(
                    "REPORT",
                    href,
                    "<sync-collection "
                        + cal
                        + "><sync-token/><sync-level>1</sync-level>"
                        + prop
                        + "</sync-collection>"),
                api.dav(
                    "REPORT",
                    href,
                    "<c:calendar-query "
                        + cal
                        + ">"
                        + prop
                        + "<c:filter><c:comp-filter name='VCALENDAR'/></c:filter></c:calendar-query>"),
                api.dav(
                    "REPORT",
                    href,
                    "<c:free-busy-query "
                        + cal
                        + "><c:time-range start='20261101T000000Z' end='20270101T000000Z'/></c:free-busy-query>"),
                api.dav(
                    "PROPPATCH",
                    href,
                    "<propertyupdate xmlns='DAV:'><set><prop><displayname>x</displayname></prop></set></propertyupdate>"));
        answers.forEach(answer -> look("CalDAV " + href, who, answer, shown));
        answers.forEach(answer -> all.append(answer.text()));
        new Calendars(api)
            .sync(href, "")
            .live()
            .keySet()
            .forEach(object -> look("GET " + object, who, api.dav("GET", object, null), shown));
      }
    }
    return all.toString();
  }

  private static void look(String name, String who, Api.Answer answer, List<String> shown) {
    String text = Calendars.unfold(answer.text()) + answer.headers();
    for (String canary : CANARIES.values()) {
      for (String disguise : disguises(canary)) {
        if (text.contains(disguise)) {
          shown.add(canary + " to " + who + " by " + name);
        }
      }
    }
  }

  /** Plain, in upper case, as an address would carry it, and in base64 at each of its offsets. */
  private static Set<String> disguises(String canary) {
    Set<String> all = new TreeSet<>(Set.of(canary, canary.toUpperCase(java.util.Locale.ROOT)));
    all.add(URLEncoder.encode(canary, StandardCharsets.UTF_8));
    for (int offset = 0; offset < 3; offset++) {
      byte[] padded = (" ".repeat(offset) + canary).getBytes(StandardCharsets.UTF_8);
      String encoded = Base64.getEncoder().withoutPadding().encodeToString(padded);
      all.add(encoded.substring(offset == 0 ? 0 : offset + 1, encoded.length() - 2));
    }
    return all;
  }
}
