package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Spoiled requests are refused as problem documents and change nothing; their twins are taken. */
public class MalformedTest {

  private static final List<String> SPOILED =
      List.of(
          "12",
          "true",
          "[]",
          "{}",
          "[{\"a\": 1}]",
          "\"'; drop table record; --\"",
          "\"<script>alert(1)</script>\"",
          "-1",
          "1.5",
          "99999999999999999999",
          "1e400");

  private record Twin(String method, String path, String body) {}

  private record Spoiled(String what, String method, String path, byte[] body) {}

  @Test
  public void twoHundredMalformedRequestsChangeNothing() {
    try (Server server = Server.started(Database.demo())) {
      Api hana = Api.of(server, "hana").warned();
      long record =
          hana.get("/api/v1/records?limit=1").json().get("items").get(0).get("id").asLong();
      List<Twin> twins = twins(hana, record);
      List<Spoiled> all = new ArrayList<>();
      twins.forEach(twin -> spoil(twin, all));
      queries(all);
      List<String> before = server.database().checksums();
      for (Spoiled one : all) {
        Api.Answer answer = hana.sendBytes(one.method(), one.path(), one.body(), "If-Match", "*");
        assertThat(answer.status()).as(one.what() + ": " + answer.text()).isBetween(400, 499);
        assertThat(answer.header("Content-Type"))
            .as(one.what() + " " + answer.status())
            .startsWith("application/problem+json");
        assertThat(answer.text()).doesNotContain("Exception").doesNotContain("org.");
      }
      assertThat(all.size()).isGreaterThanOrEqualTo(200);
      assertThat(server.database().checksums()).isEqualTo(before);
      for (Twin twin : twins) {
        Api.Answer answer = hana.send(twin.method(), twin.path(), twin.body(), "If-Match", "*");
        assertThat(answer.status()).as(twin + ": " + answer.text()).isBetween(200, 299);
      }
      sqlAndHtmlAreTextLikeAnyOther(hana);
    }
  }

  private static final String ROWS =
      """
      {"what": "RECORDS", "source": "office", "kind": "TICKET", "strokes": "DAY_FIRST",
       "fields": ["id", "title", ""], "rows": [{"row": 2, "cells": ["1", "Oil hinges", "x"]}]}
      """;

  private static List<Twin> twins(Api hana, long record) {
    long ines = hana.idOf("people", "Ines Okafor");
    long team = hana.idOf("teams", "Thornmere crew");
    long kofi = hana.idOf("people", "Kofi Brandreth");
    String ticket =
        """
        {"kind": "TICKET", "title": "Good", "place": 1, "team": %d, "due": {"at": "2026-12-01T10:00"},
         "people": [{"role": 0, "person": %d}], "details": {"phone": "0555 0101"}, "private": false,
         "state": "CONFIRMED", "tags": ["one"]}
        """
            .formatted(team, ines);
    return List.of(
        new Twin("POST", "/api/v1/records", ticket),
        new Twin(
            "PATCH",
            "/api/v1/records/" + record,
            "{\"title\": \"Better\", \"due\": {\"date\": \"2026-12-02\"}, \"started\": true}"),
        new Twin("POST", "/api/v1/landings", ticket),
        new Twin(
            "POST",
            "/api/v1/records",
            """
            {"kind": "SHIFT", "title": "Good shift", "visits": [{"start": "2026-12-01T10:00",
             "end": "2026-12-01T12:00"}], "dates": [{"name": "told", "date": "2026-11-30"}],
             "exceptions": [{"sort": "NOT_SENT", "reason": "not yet"}],
             "repeat": {"unit": "WEEKS", "times": 2}}
            """),
        new Twin(
            "POST",
            "/api/v1/records/several",
            "{\"items\": [{\"like\": %d, \"make\": {\"title\": \"Like it\"}}]}".formatted(record)),
        new Twin(
            "PUT",
            "/api/v1/people/" + kofi + "/hours",
            "{\"hours\": [{\"weekday\": 1, \"from\": \"07:00\", \"until\": \"16:00\"}]}"),
        new Twin(
            "POST",
            "/api/v1/people/" + kofi + "/leave",
            "{\"first\": \"2026-12-01\", \"last\": \"2026-12-03\"}"),
        new Twin("POST", "/api/v1/people", "{\"name\": \"New Person\", \"standing\": \"HOUSE\"}"),
        new Twin("PATCH", "/api/v1/people/" + kofi, "{\"name\": \"Kofi B.\", \"right\": \"NONE\"}"),
        new Twin("POST", "/api/v1/teams", "{\"name\": \"New team\", \"hue\": \"moss\"}"),
        new Twin("POST", "/api/v1/teams/" + team + "/members", "{\"person\": " + kofi + "}"),
        new Twin(
            "POST",
            "/api/v1/places",
            "{\"code\": \"NP\", \"name\": \"New place\", \"zone\": \"Europe/Paris\"}"),
        new Twin(
            "POST",
            "/api/v1/people/" + kofi + "/invitation",
            "{\"email\": \"kofi@quillwater.example\", \"right\": \"WORKER\"}"),
        new Twin("POST", "/api/v1/files/look", ROWS),
        new Twin("POST", "/api/v1/files/take", ROWS),
        new Twin(
            "POST",
            "/api/v1/views",
            "{\"name\": \"Done\", \"query\": \"state=done\", \"forAll\": true}"),
        new Twin("POST", "/api/v1/feeds", "{\"calendar\": 1, \"label\": \"Marina\"}"),
        new Twin(
            "POST",
            "/api/v1/account/app-passwords",
            "{\"label\": \"Phone\", \"password\": \"still-water\"}"));
  }

  /** Each field in turn takes values of the wrong sort, and the body as a whole is broken. */
  private static void spoil(Twin twin, List<Spoiled> all) {
    JsonNode body = Api.JSON.readTree(twin.body());
    for (String field : body.propertyNames()) {
      boolean text = List.of("title", "name", "label", "code", "source").contains(field);
      for (String value : SPOILED) {
        JsonNode good = body.get(field);
        JsonNode bad = Api.JSON.readTree(value.equals("1e400") ? "\"1e400\"" : value);
        boolean fits =
            text && bad.isString()
                || good.isBoolean() && bad.isBoolean()
                || good.isArray() && bad.isArray() && bad.isEmpty()
                || field.equals("details") && bad.isObject() && bad.isEmpty()
                || good.isIntegralNumber() && bad.isIntegralNumber() && value.equals("12");
        if (!fits) {
          ObjectNode spoiled = ((ObjectNode) body).deepCopy();
          spoiled.set(field, bad);
          add(all, twin, field + " = " + value, spoiled.toString());
        }
      }
      if (body.get(field).isString()) {
        for (String bad : List.of("\\u0000", "a\\ud800b", "\\u0007", "x".repeat(20_000))) {
          String raw =
              twin.body().replace("\"" + body.get(field).asString() + "\"", "\"" + bad + "\"");
          add(all, twin, field + " holds " + bad.substring(0, 4), raw);
        }
      }
    }
    add(all, twin, "no object", "[1, 2]");
    add(all, twin, "cut short", twin.body().substring(0, twin.body().length() / 2));
    add(all, twin, "with a tail", twin.body() + " x");
    add(all, twin, "an unknown field", twin.body().replaceFirst("\\{", "{\"unknown\": 1, "));
    add(all, twin, "deep", "{\"title\": " + "[".repeat(500) + "]".repeat(500) + "}");
    String first = body.propertyNames().iterator().next();
    add(all, twin, "twice", twin.body().replaceFirst("\\{", "{\"" + first + "\": null, "));
    byte[] bytes = twin.body().getBytes(StandardCharsets.UTF_8);
    bytes[twin.body().indexOf('"', 2) - 1] = (byte) 0xc3;
    all.add(new Spoiled("bad UTF-8 " + twin.path(), twin.method(), twin.path(), bytes));
    int most = twin.path().startsWith("/api/v1/files/") ? 1 << 24 : 1 << 20;
    byte[] huge = (" ".repeat(most) + twin.body()).getBytes(StandardCharsets.UTF_8);
    all.add(new Spoiled("huge " + twin.path(), twin.method(), twin.path(), huge));
  }

  private static void add(List<Spoiled> all, Twin twin, String what, String body) {
    all.add(
        new Spoiled(
            what + " to " + twin.path(),
            twin.method(),
            twin.path(),
            body.getBytes(StandardCharsets.UTF_8)));
  }

  private static void queries(List<Spoiled> all) {
    Map<String, String> bad = new LinkedHashMap<>();
    bad.put("limit", "/api/v1/records?limit=0");
    bad.put("huge limit", "/api/v1/records?limit=100000");
    bad.put("limit as a word", "/api/v1/records?limit=many");
    bad.put("cursor", "/api/v1/records?cursor=%27%3B--");
    bad.put("state", "/api/v1/records?state=%3Cb%3E");
    bad.put("kind", "/api/v1/records?kind=x");
    bad.put("person", "/api/v1/records?person=1%20or%201=1");
    bad.put("id", "/api/v1/records/x");
    bad.put("long find", "/api/v1/records?find=" + "x".repeat(500));
    bad.put("null byte", "/api/v1/records?find=a%00b");
    bad.put("board without days", "/api/v1/board");
    bad.put("board of no day", "/api/v1/board?from=x&until=2026-12-01");
    bad.put("board of years", "/api/v1/board?from=2026-12-01&until=2028-12-01");
    bad.put("double slash", "/api//v1/records");
    bad.put("encoded slash", "/api/v1/records%2f1");
    bad.put("nowhere", "/api/v1/nowhere");
    bad.forEach((what, path) -> all.add(new Spoiled(what, "GET", path, null)));
    all.add(new Spoiled("method", "DELETE", "/api/v1/records", null));
    all.add(
        new Spoiled(
            "xml", "POST", "/api/v1/records", "<!DOCTYPE a><a/>".getBytes(StandardCharsets.UTF_8)));
  }

  private static void sqlAndHtmlAreTextLikeAnyOther(Api hana) {
    String text = "'; drop table record; -- <script>alert(1)</script> {title} [x] 🦆";
    ObjectNode body = Api.JSON.createObjectNode().put("title", text);
    body.putObject("details").put("notes", text).put("phone", text);
    JsonNode made = hana.post("/api/v1/records", body.toString()).expect(201).json();
    assertThat(made.get("record").get("title").asString()).isEqualTo(text);
  }
}
