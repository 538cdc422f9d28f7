package mellowrota.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Makes a house of the demo's shape as large as wanted: more people in more teams, with two or
 * three jobs each on every day of so many weeks, brought in as files are.
 */
public final class Growth {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int TEAM = 16;
  private static final int AT_ONCE = 500;
  private static final List<String> GIVEN =
      List.of("Alder", "Bryn", "Cass", "Dale", "Esk", "Fen", "Gill", "Heath", "Isla", "Juno");
  private static final List<String> FAMILY =
      List.of(
          "Ashdown", "Birk", "Clough", "Dray", "Eyot", "Ferris", "Garth", "Holm", "Ings", "Keld");

  private final DemoClient coordinator;

  Growth(DemoClient coordinator) {
    this.coordinator = coordinator;
  }

  /**
   * Arguments: the server's address without a slash at the end, people, weeks, the first Monday.
   */
  public static void main(String[] arguments) throws Exception {
    int spans =
        new Growth(new DemoClient(arguments[0]))
            .grow(
                Integer.parseInt(arguments[1]),
                Integer.parseInt(arguments[2]),
                LocalDate.parse(arguments[3]));
    System.out.println(arguments[1] + " people with " + spans + " jobs more");
  }

  /** Adds so many people and their work; gives the number of jobs. */
  int grow(int people, int weeks, LocalDate monday) throws Exception {
    List<String> places = new ArrayList<>();
    JSON.readTree(coordinator.send("GET", "/api/v1/places", null))
        .forEach(place -> places.add(place.get("name").asString()));
    List<List<String>> crew = new ArrayList<>();
    List<List<String>> jobs = new ArrayList<>();
    for (int i = 0; i < people; i++) {
      if (i % TEAM == 0) {
        coordinator.send("POST", "/api/v1/teams", "{\"name\": \"" + team(i) + "\"}");
      }
      crew.add(List.of(name(i), name(i), team(i)));
      for (int day = 0; day < 7 * weeks; day++) {
        for (int k = 0; k < (day % 6 == 0 ? 3 : 2); k++) {
          jobs.add(job(i, monday.plusDays(day), 7 + 4 * k, places.get((i + day) % places.size())));
        }
      }
    }
    take("PEOPLE", "JOB", List.of("id", "name", "teams"), crew);
    take(
        "RECORDS", "JOB", List.of("id", "title", "place", "start", "end", "role:0", "state"), jobs);
    return jobs.size();
  }

  private static String team(int person) {
    return "Stretch crew " + person / TEAM;
  }

  static String name(int i) {
    String name = GIVEN.get(i % GIVEN.size()) + " " + FAMILY.get(i / GIVEN.size() % FAMILY.size());
    int round = i / (GIVEN.size() * FAMILY.size());
    return round == 0 ? name : name + " " + (round + 1);
  }

  private static List<String> job(int person, LocalDate day, int hour, String place) {
    return List.of(
        "%d %s %d".formatted(person, day, hour),
        "Clear trash screen",
        place,
        "%sT%02d:00".formatted(day, hour),
        "%sT%02d:30".formatted(day, hour + 3),
        name(person),
        "confirmed");
  }

  /** Takes rows in as a file; records without a kind of their own are of this kind. */
  void take(String what, String kind, List<String> fields, List<List<String>> rows)
      throws Exception {
    for (int from = 0; from < rows.size(); from += AT_ONCE) {
      ObjectNode body = JSON.createObjectNode();
      body.put("what", what).put("source", "growth").put("kind", kind);
      fields.forEach(body.putArray("fields")::add);
      ArrayNode some = body.putArray("rows");
      for (int i = from; i < Math.min(rows.size(), from + AT_ONCE); i++) {
        ObjectNode row = some.addObject().put("row", i);
        rows.get(i).forEach(row.putArray("cells")::add);
      }
      String answer = coordinator.send("POST", "/api/v1/files/take", body.toString());
      if (answer.contains("FAULTY")) {
        throw new IllegalStateException("a row was not taken: " + answer);
      }
    }
  }
}
