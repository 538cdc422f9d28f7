package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * What one record passes on to another is what its maker sees (SIGHT 10), and what one may not know
 * of answers as if it were not there.
 */
public class PassedOnTest extends OnDemo {

  private Api marguerite;
  private long tam;
  private long nell;

  @BeforeClass
  public void people() {
    marguerite = Api.of(server, "marguerite");
    tam = hana.idOf("people", "Tam Birtles");
    nell = hana.idOf("people", "Nell Ashdown");
  }

  /** Tam's work, which Marguerite is told of and has no office rights on. */
  private long tamsWork(String title) {
    return hana.record(
        """
        {"title": "%s", "place": 2, "due": {"at": "2027-02-01T10:00"}, "tags": ["open"],
         "leastHeadCount": null, "estimateMinutes": 90,
         "people": [{"role": 0, "person": %d}, {"role": 3, "person": %d}],
         "details": {"gate code": "hook 5511", "quote": "nine hundred", "phone": "0555 0133",
          "notes": "mind the swans"}}
        """
            .formatted(title, tam, hana.idOf("people", "Marguerite Pell")));
  }

  @Test
  public void aCopyCarriesWhatItsMakerSees() {
    long original = tamsWork("Passed on");
    String seen = marguerite.get("/api/v1/records/" + original).expect(200).text();
    assertThat(seen).doesNotContain("hook 5511").doesNotContain("nine hundred");
    JsonNode made =
        marguerite
            .post(
                "/api/v1/records/several",
                """
                {"items": [{"like": %d, "make": {"title": "Made of it",
                 "people": [{"role": 0, "person": %d}]}}]}
                """
                    .formatted(original, nell))
            .expect(200)
            .json();
    long copy = made.get("records").get(0).asLong();
    String hers = marguerite.get("/api/v1/records/" + copy).expect(200).text();
    assertThat(hers)
        .as("she has office rights on the copy, whose details were cut for her")
        .contains("mind the swans")
        .doesNotContain("hook 5511")
        .doesNotContain("nine hundred")
        .doesNotContain("0555 0133");
    assertThat(
            server
                .database()
                .query("select value from detail where record = " + copy + " and key <> 'title'"))
        .containsExactly("mind the swans");
    assertThat(server.database().query("select estimate::text from record where id = " + copy))
        .as("an estimate is the office's")
        .containsExactly((String) null);
    long hanas =
        hana.post(
                "/api/v1/records/several",
                "{\"items\": [{\"like\": %d, \"make\": {\"title\": \"Hers\"}}]}"
                    .formatted(original))
            .expect(200)
            .json()
            .get("records")
            .get(0)
            .asLong();
    assertThat(
            server
                .database()
                .query("select value from detail where key = 'gate code' and record = " + hanas))
        .as("who has office rights on it carries all, unseen too")
        .containsExactly("hook 5511");
  }

  @Test
  public void anIdOfASourceThatOneMayNotKnowOfIsNew() {
    String body =
        "{\"title\": \"From elsewhere\", \"source\": \"office\", \"sourceId\": \"w-1\","
            + " \"people\": [{\"role\": 0, \"person\": %d}]}";
    long hers = hana.record(body.formatted(tam));
    Api.Answer answer = marguerite.post("/api/v1/records", body.formatted(nell)).expect(201);
    long other = answer.json().get("record").get("id").asLong();
    assertThat(other).isNotEqualTo(hers);
    assertThat(marguerite.post("/api/v1/records", body.formatted(nell)).json().get("records"))
        .as("to her it is known from then on")
        .isEqualTo(answer.json().get("records"));
    assertThat(
            hana.post("/api/v1/records", body.formatted(tam)).json().get("records").get(0).asLong())
        .isEqualTo(hers);
  }

  @Test
  public void aFileTellsNothingOfWorkThatOneMayNotKnowOf() {
    String rows =
        """
        {"what": "RECORDS", "source": "yard", "kind": "TICKET", "strokes": "DAY_FIRST",
         "fields": ["id", "title", "role:0"], "rows": [{"row": 2, "cells": ["%s", "Hidden row", "%s"]}]}
        """;
    hana.post("/api/v1/files/take", rows.formatted("y-1", "Tam Birtles")).expect(200);
    String known =
        marguerite.post("/api/v1/files/look", rows.formatted("y-1", "Nell Ashdown")).text();
    String unknown =
        marguerite.post("/api/v1/files/look", rows.formatted("y-2", "Nell Ashdown")).text();
    assertThat(known).isEqualTo(unknown).contains("NEW");
    marguerite.post("/api/v1/files/take", rows.formatted("y-1", "Nell Ashdown")).expect(200);
    assertThat(marguerite.post("/api/v1/files/look", rows.formatted("y-1", "Nell Ashdown")).text())
        .contains("SAME");
    assertThat(hana.post("/api/v1/files/look", rows.formatted("y-1", "Tam Birtles")).text())
        .contains("SAME");
  }

  @DataProvider
  public Object[][] acts() {
    return new Object[][] {{"ines"}, {"wren"}, {"marguerite"}};
  }

  /** An act on work, on the crew, on rules, one undone already, and none: one answer. */
  @Test(dataProvider = "acts")
  public void anActThatOneMayNotKnowOfAnswersAsNone(String name) {
    Api other = Api.of(server, name);
    long secret =
        hana.record(
            "{\"title\": \"Secret\", \"private\": true, \"people\": [{\"role\": 0, \"person\": %d}]}"
                .formatted(tam));
    long act = hana.change(secret, "{\"title\": \"More secret\"}");
    long undone = hana.change(secret, "{\"title\": \"Most secret\"}");
    hana.post("/api/v1/acts/" + undone + "/undo", "{}").expect(200);
    hana.post("/api/v1/teams", "{\"name\": \"Team for %s\", \"hue\": \"moss\"}".formatted(name))
        .expect(201);
    String last = server.database().query("select max(act)::text from act_row").get(0);
    List<Long> all = List.of(act, undone, Long.valueOf(last), 999_999_999L, 1L);
    String none = plain(other.post("/api/v1/acts/999999999/undo", "{}"));
    assertThat(none).startsWith("404");
    for (long one : all) {
      assertThat(plain(other.post("/api/v1/acts/" + one + "/undo", "{}")))
          .as("act " + one)
          .isEqualTo(none);
    }
    assertThat(plain(other.get("/api/v1/records/" + secret)))
        .isEqualTo(plain(other.get("/api/v1/records/999999999")));
  }

  private static String plain(Api.Answer answer) {
    return answer.status()
        + answer.text().replaceAll("\"request\":\"\\w+\"", "").replaceAll("/\\d+", "/N")
        + answer.headers().keySet();
  }
}
