package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The audit both ways equals what a slow enumeration over every record finds. */
public class AuditTest extends OnDemo {

  private final List<Long> records = new ArrayList<>();

  @BeforeClass
  public void start() {
    long own = hana.idOf("calendars", "Ines Okafor, own");
    hana.post("/api/v1/feeds", "{\"calendar\": %d, \"label\": \"x\"}".formatted(own)).expect(201);
    Api wren = Api.of(server, "wren");
    long share =
        hana.post(
                "/api/v1/shares",
                "{\"calendar\": %d, \"reader\": %d, \"level\": \"ALL\"}"
                    .formatted(own, hana.idOf("people", "Wren Adeyemi")))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    wren.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
    server
        .database()
        .query("select id::text from record order by id")
        .forEach(id -> records.add(Long.valueOf(id)));
  }

  private JsonNode audit(String query) {
    return hana.get("/api/v1/audit?" + query).expect(200).json();
  }

  /** By every detail: each record's own page of who sees what, added up. */
  @Test
  public void whomADetailCanReachIsWhatEveryRecordSaysAddedUp() {
    Map<String, Long> slow = new TreeMap<>();
    for (long record : records) {
      JsonNode sight = hana.get("/api/v1/records/" + record + "/sight").expect(200).json();
      for (JsonNode audience : sight.get("audiences")) {
        for (int i = 0; i < sight.get("details").size(); i++) {
          String status = audience.get("cells").get(i).get("status").asString();
          if (status.equals("SHOWN") || status.equals("EMPTY")) {
            String key =
                sight.get("details").get(i).get("label").asString()
                    + " | "
                    + audience.get("name").asString()
                    + " | "
                    + audience.get("way").asString()
                    + " | "
                    + audience.get("readers").asString();
            slow.merge(key, 1L, Long::sum);
          }
        }
      }
    }
    Map<String, Long> told = new TreeMap<>();
    for (JsonNode detail : hana.get("/api/v1/details").json()) {
      String key = detail.get("key").asString().replace(" ", "%20");
      for (JsonNode row : audit("detail=" + key)) {
        told.merge(
            row.get("detail").asString()
                + " | "
                + row.get("name").asString()
                + " | "
                + row.get("way").asString()
                + " | "
                + row.get("readers").asString(),
            row.get("count").asLong(),
            Long::sum);
      }
    }
    assertThat(told).isEqualTo(slow);
    assertThat(told.keySet())
        .anyMatch(key -> key.contains("| FEED |"))
        .anyMatch(key -> key.contains("| SHARE | Wren Adeyemi"));
  }

  /** By a person: on our screens what each record answers them, and the calendars they read. */
  @Test
  public void whatAPersonCanSeeIsWhatTheyAreAnswered() {
    Api wren = Api.of(server, "wren");
    Map<String, Long> slow = new TreeMap<>();
    for (long record : records) {
      Api.Answer answer = wren.get("/api/v1/records/" + record);
      if (answer.status() == 200) {
        for (JsonNode detail : answer.json().get("details")) {
          slow.merge(detail.get("label").asString(), 1L, Long::sum);
        }
      }
    }
    Map<String, Long> told = new TreeMap<>();
    List<String> calendars = new ArrayList<>();
    for (JsonNode row : audit("person=" + hana.idOf("people", "Wren Adeyemi"))) {
      String detail = row.get("detail").asString();
      if (!row.get("way").asString().equals("SCREENS")) {
        calendars.add(row.get("name").asString());
        assertThat(row.get("readers").asString()).isNotEmpty();
      } else if (slow.containsKey(detail)) {
        told.put(detail, row.get("count").asLong());
      }
    }
    assertThat(told).isEqualTo(slow);
    assertThat(calendars)
        .contains("Wren Adeyemi, own", "Ines Okafor, own", "Due times")
        .doesNotContain("Master");
  }

  /** The map: what each record of the days says on its own page, and answers each of the crew. */
  @Test
  public void theMapIsWhatEveryRecordOfTheDaysSays() {
    JsonNode map = hana.get("/api/v1/audit/map").expect(200).json();
    List<Long> ahead =
        server
            .database()
            .query(
                """
                select r.id::text from record r where r.state in ('TENTATIVE', 'CONFIRMED', 'DONE')
                  and (r.due_at >= timestamptz '%1$s' and r.due_at < timestamptz '%1$s' + interval '14 d'
                    or exists (select 1 from visit v where v.record = r.id
                      and (v.starts < timestamptz '%1$s' + interval '14 d' and v.ends >= timestamptz '%1$s'
                        or v.date_from < date '%2$s' and v.date_to > date '%3$s')))
                """
                    .formatted(
                        hana.get("/api/v1/session").json().get("now").asString(),
                        map.get("until").asString(),
                        map.get("from").asString()))
            .stream()
            .map(Long::valueOf)
            .toList();
    assertThat(map.get("records").asInt()).isEqualTo(ahead.size()).isPositive();
    assertThat(map.get("more").asBoolean()).isFalse();
    TreeMap<String, TreeSet<Long>> slow = new TreeMap<>();
    for (long record : ahead) {
      JsonNode sight = hana.get("/api/v1/records/" + record + "/sight").expect(200).json();
      for (JsonNode audience : sight.get("audiences")) {
        for (int i = 0; i < sight.get("details").size(); i++) {
          String status = audience.get("cells").get(i).get("status").asString();
          if (audience.has("entry") && (status.equals("SHOWN") || status.equals("EMPTY"))) {
            slow.computeIfAbsent(
                    sight.get("details").get(i).get("key").asString(), key -> new TreeSet<>())
                .add(audience.get("calendar").asLong());
          }
        }
      }
    }
    TreeMap<String, TreeSet<Long>> told = new TreeMap<>();
    Map<String, TreeSet<Long>> people = new TreeMap<>();
    for (JsonNode row : map.get("details")) {
      assertThat(row.get("cells").size()).isEqualTo(map.get("columns").size());
      for (JsonNode cell : row.get("cells")) {
        String key = row.get("detail").asString();
        cell.get("calendars")
            .forEach(one -> told.computeIfAbsent(key, k -> new TreeSet<>()).add(one.asLong()));
        cell.get("people")
            .forEach(one -> people.computeIfAbsent(key, k -> new TreeSet<>()).add(one.asLong()));
      }
    }
    assertThat(told).isEqualTo(slow);
    for (String who : List.of("hana", "marguerite", "ines", "wren", "tam")) {
      Api asker = Api.of(server, who);
      long me = asker.get("/api/v1/session").json().get("person").asLong();
      TreeSet<String> seen = new TreeSet<>();
      TreeSet<String> typed = new TreeSet<>();
      for (long record : ahead) {
        hana.get("/api/v1/records/" + record)
            .json()
            .get("details")
            .forEach(one -> typed.add(one.get("key").asString()));
        Api.Answer answer = asker.get("/api/v1/records/" + record);
        if (answer.status() == 200) {
          // What is kept back has no value.
          answer
              .json()
              .get("details")
              .valueStream()
              .filter(one -> one.has("value"))
              .forEach(one -> seen.add(one.get("key").asString()));
        }
      }
      for (String key : typed) {
        assertThat(people.getOrDefault(key, new TreeSet<>()).contains(me))
            .as(key + " and " + who)
            .isEqualTo(seen.contains(key));
      }
    }
  }

  @Test
  public void itComesAsCsvAndForCoordinatorsOnly() {
    String csv = hana.get("/api/v1/audit.csv?detail=phone").expect(200).text();
    assertThat(csv).startsWith("detail,way,calendar,readers,rule,count\r\n");
    assertThat(csv.lines().count()).isEqualTo(1 + audit("detail=phone").size());
    Api ines = Api.of(server, "ines");
    ines.get("/api/v1/audit?detail=phone").expect(403);
    ines.get("/api/v1/audit/map").expect(403);
    Api.of(server, "marguerite").get("/api/v1/audit/map").expect(403);
    ines.get("/api/v1/audit.csv?person=1").expect(403);
    assertThat(hana.get("/api/v1/audit").expect(422).text()).contains("but not both");
    assertThat(hana.get("/api/v1/audit?detail=hue").expect(422).text()).contains("is not a detail");
    assertThat(hana.get("/api/v1/audit?person=99999").expect(422).text())
        .contains("is not a person");
  }
}
