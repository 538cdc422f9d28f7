package mellowrota.server.demo;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The demo's work around a day, as requests to make records: the same for the same day. */
final class DemoWork {

  private static final long SEED = 7_302;
  private static final int TICKETS = 40;
  private static final int DAYS_BACK = 7;
  static final int DAYS_LAID = 21;
  private static final int DAYS_DRAFTED = 35;
  private static final List<String> DETAILS =
      List.of("contact", "phone", "gate code", "parts", "quote", "notes");

  private final JsonMapper json;
  private final JsonNode world;
  private final Map<String, PersonId> persons;
  private final Map<String, TeamId> teams;
  private final Map<String, Long> places;
  private final LocalDate today;
  private final SplittableRandom random = new SplittableRandom(SEED);
  private final List<ObjectNode> made = new ArrayList<>();

  DemoWork(
      JsonMapper json,
      JsonNode world,
      Map<String, PersonId> persons,
      Map<String, TeamId> teams,
      Map<String, Long> places,
      LocalDate today) {
    this.json = json;
    this.world = world;
    this.persons = persons;
    this.teams = teams;
    this.places = places;
    this.today = today;
  }

  List<ObjectNode> records() {
    tickets();
    for (JsonNode job : world.get("jobs")) {
      made.add(job(job));
    }
    shifts();
    for (JsonNode deadline : world.get("deadlines")) {
      made.add(deadline(deadline));
    }
    return made;
  }

  /** A change made after all was laid, which those on the work have not seen yet. */
  record Later(String title, ObjectNode body) {}

  private String at(JsonNode later, String time) {
    LocalDate day = today.plusDays(later.get("day").asInt());
    return day.atTime(LocalTime.parse(later.get(time).asString())).toString();
  }

  List<Later> changes() {
    List<Later> found = new ArrayList<>();
    for (JsonNode later : world.get("later")) {
      ObjectNode body = json.createObjectNode();
      if (later.has("due")) {
        body.putObject("due").put("at", at(later, "due"));
      }
      if (later.has("start")) {
        ObjectNode visit = body.putArray("visits").addObject().put("no", 1);
        visit.put("start", at(later, "start")).put("end", at(later, "end"));
      }
      if (later.has("cant")) {
        body.put("cant", true).set("note", later.get("cant"));
      }
      if (later.has("exception")) {
        body.putArray("exceptions")
            .addObject()
            .put("sort", "NOT_SENT")
            .set("reason", later.get("exception"));
      }
      found.add(new Later(later.get("title").asString(), body));
    }
    return found;
  }

  private ObjectNode record(String kind, String title, JsonNode from) {
    ObjectNode body = json.createObjectNode().put("kind", kind).put("title", title);
    if (from.has("place")) {
      body.put("place", places.get(from.get("place").asString()));
    }
    ArrayNode uses = body.putArray("uses");
    from.path("uses").forEach(code -> uses.add(places.get(code.asString())));
    if (from.has("team")) {
      body.put("team", teams.get(from.get("team").asString()).value());
    }
    return body;
  }

  private ObjectNode job(JsonNode job) {
    ObjectNode body = record("JOB", job.get("title").asString(), job);
    ArrayNode visits = body.putArray("visits");
    for (JsonNode visit : job.path("visits")) {
      LocalDate day = today.plusDays(visit.get(0).asInt());
      ObjectNode one =
          visits
              .addObject()
              .put("start", day.atTime(LocalTime.parse(visit.get(1).asString())).toString())
              .put("end", day.atTime(LocalTime.parse(visit.get(2).asString())).toString());
      for (String field : List.of("before", "after", "zone")) {
        if (job.has(field)) {
          one.set(field, job.get(field));
        }
      }
    }
    for (JsonNode days : job.path("days")) {
      visits
          .addObject()
          .put("first", today.plusDays(days.get(0).asInt()).toString())
          .put("last", today.plusDays(days.get(1).asInt()).toString());
    }
    people(body, job, today.minusDays(3).atTime(8, 40));
    ObjectNode details = body.putObject("details");
    for (String key : DETAILS) {
      if (job.has(key)) {
        details.set(key, job.get(key));
      }
    }
    for (String field : List.of("tags", "leastHeadCount", "wants")) {
      if (job.has(field)) {
        body.set(field, job.get(field));
      }
    }
    return body.put("state", job.path("state").asString("CONFIRMED"));
  }

  private void people(ObjectNode body, JsonNode from, LocalDateTime given) {
    ArrayNode on = body.putArray("people");
    if (from.path("lead").isString()) {
      on(on, RoleId.LEAD, from.get("lead").asString(), given);
    }
    from.path("support").forEach(name -> on(on, RoleId.SUPPORT, name.asString(), given));
    if (from.has("supervisor")) {
      on(on, RoleId.SUPERVISOR, from.get("supervisor").asString(), given);
    }
    from.path("informed").forEach(name -> on(on, RoleId.INFORMED, name.asString(), given));
  }

  private void on(ArrayNode people, RoleId role, String name, LocalDateTime given) {
    people
        .addObject()
        .put("role", role.value())
        .put("person", persons.get(name).value())
        .put("given", given.toString());
  }

  private ObjectNode deadline(JsonNode deadline) {
    ObjectNode body = record("DEADLINE", deadline.get("title").asString(), deadline);
    LocalDate day = today.plusDays(deadline.get("day").asInt());
    if (deadline.has("time")) {
      LocalTime time = LocalTime.parse(deadline.get("time").asString());
      body.putObject("due").put("at", day.atTime(time).toString());
    } else {
      body.putObject("due").put("date", day.toString());
    }
    people(body, deadline, today.minusDays(6).atTime(9, 0));
    if (deadline.has("estimateMinutes")) {
      body.set("estimateMinutes", deadline.get("estimateMinutes"));
    }
    if (deadline.has("yearly")) {
      body.putObject("repeat")
          .put("every", 1)
          .put("unit", "YEARS")
          .put("times", deadline.get("yearly").asInt());
    }
    return body;
  }

  /** Laid out whole for three weeks; what comes after is a draft of a rota. */
  private void shifts() {
    for (DemoShifts.Shift shift : new DemoShifts(world, today).laid(-DAYS_BACK, DAYS_DRAFTED)) {
      ObjectNode body = record("SHIFT", shift.duty().get("name").asString(), shift.duty());
      body.putArray("visits")
          .addObject()
          .put("start", shift.times().start().toString())
          .put("end", shift.times().end().toString());
      ArrayNode on = body.putArray("people");
      shift.person().ifPresent(name -> on(on, RoleId.LEAD, name, today.minusDays(14).atTime(9, 0)));
      if (shift.day() < 0) {
        body.put("state", "DONE");
      } else if (shift.day() >= DAYS_LAID) {
        body.put("state", "TENTATIVE");
      }
      made.add(body);
    }
  }

  private void tickets() {
    List<String> workers = new ArrayList<>();
    for (JsonNode person : world.get("people")) {
      if (person.has("hours")
          && !person.has("shiftsAlone")
          && !person.path("right").asString("").equals("COORDINATOR")) {
        workers.add(person.get("name").asString());
      }
    }
    for (int i = 0; i < TICKETS; i++) {
      ObjectNode body = ticket(i);
      if (i % 8 != 7) {
        String lead = workers.get(random.nextInt(workers.size()));
        ArrayNode on = body.putArray("people");
        LocalDateTime due = LocalDateTime.parse(body.get("due").get("at").asString());
        LocalDateTime given = due.minusDays(1 + random.nextInt(3)).with(LocalTime.of(8, 40));
        on(on, RoleId.LEAD, lead, given);
        String other = workers.get(random.nextInt(workers.size()));
        if (i % 3 == 0 && !other.equals(lead)) {
          on(on, RoleId.SUPPORT, other, given);
        }
      }
      made.add(body);
    }
  }

  private ObjectNode ticket(int i) {
    ObjectNode body = json.createObjectNode();
    body.put("kind", "TICKET");
    body.put("title", any("reports"));
    List<String> codes = places.keySet().stream().sorted().toList();
    body.put("place", places.get(codes.get(random.nextInt(codes.size()))));
    LocalDate day = today.plusDays(i / 3 - 4L);
    if (day.getDayOfWeek() == DayOfWeek.SUNDAY) {
      day = day.plusDays(1);
    }
    LocalTime time = LocalTime.of(8 + random.nextInt(10), random.nextInt(2) * 30);
    body.putObject("due").put("at", day.atTime(time).toString());
    ObjectNode details = body.putObject("details");
    details.put("contact", any("contacts"));
    details.put("phone", "0555 01" + (10 + random.nextInt(90)));
    if (i % 4 == 0) {
      details.put("gate code", Integer.toString(1000 + random.nextInt(9000)));
    }
    if (i % 5 == 0) {
      details.put("quote", (80 + random.nextInt(40) * 10) + " agreed");
    }
    if (i % 3 != 2) {
      body.put("estimateMinutes", 45 + 30 * (i % 4));
    }
    if (i % 6 == 1) {
      details.put("notes", "Boater reported it twice.\nBring the long windlass.");
    }
    body.put(
        "state",
        day.isBefore(today.minusDays(1)) || day.isBefore(today) && i % 3 < 2
            ? "DONE"
            : i % 11 == 3 ? "TENTATIVE" : "CONFIRMED");
    return body;
  }

  private String any(String list) {
    JsonNode all = world.get(list);
    return all.get(random.nextInt(all.size())).asString();
  }
}
