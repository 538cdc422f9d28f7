package mellowrota.server.demo;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.server.accounts.Accounts;
import mellowrota.server.crew.HouseStore;
import mellowrota.server.crew.People;
import mellowrota.server.records.Records;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Quillwater Navigation, a made-up trust that keeps an inland waterway in order. Everything in it
 * is invented. It is laid through the services, relative to today, from a fixed seed.
 */
@Component
class DemoWorld {

  private static final String PASSWORD = "still-water";
  private static final long SEED = 7_302;
  private static final int TICKETS = 40;

  private static final Map<String, List<String>> CREW =
      new java.util.LinkedHashMap<>(
          Map.of(
              "Thornmere crew",
              List.of("Ines Okafor", "Joss Hallard", "Lerato Quist", "Osk Fenwright"),
              "Saltgate crew",
              List.of("Tam Birtles", "Wren Adeyemi", "Dov Castellan", "Priya Lund", "Bram Idowu"),
              "Upper Quill crew",
              List.of("Marguerite Pell", "Nell Ashdown", "Ravi Thistlewood", "Solveig Marsh"),
              "Bank and Dredging",
              List.of("Bram Idowu", "Caio Merrin", "Anneke Dray", "Yusuf Larch", "Hedda Quay"),
              "Duty Office",
              List.of("Hana Vesely", "Pell Ombury", "Tove Rushlake")));

  private static final List<String> TEAM_ORDER =
      List.of(
          "Thornmere crew",
          "Saltgate crew",
          "Upper Quill crew",
          "Bank and Dredging",
          "Duty Office");

  private static final List<String> HUES = List.of("lagoon", "slate", "moss", "umber", "heather");

  private static final List<String> MORE =
      List.of("Isla Wherry", "Kofi Brandreth", "Mina Saltmarsh", "Jory Penhale");

  private static final List<String[]> PLACES =
      List.of(
          new String[] {"L1", "Lock 1, Thornmere Flight"},
          new String[] {"L2", "Lock 2, Thornmere Flight"},
          new String[] {"L3", "Lock 3, Thornmere Flight"},
          new String[] {"L4", "Lock 4, Thornmere Flight"},
          new String[] {"L5", "Lock 5, Thornmere Flight"},
          new String[] {"L6", "Lock 6, Thornmere Flight"},
          new String[] {"L7", "Lock 7, Thornmere Flight"},
          new String[] {"OB", "Osier Basin"},
          new String[] {"OW", "Osier Weir"},
          new String[] {"SG", "Saltgate swing bridge"},
          new String[] {"SC", "Saltgate Cut"},
          new String[] {"UQ", "Upper Quill towpath"},
          new String[] {"QW", "Quill Weir"},
          new String[] {"BG", "The barge"});

  private static final List<String> REPORTS =
      List.of(
          "Stuck paddle",
          "Barrier lamp out",
          "Fallen willow",
          "Weed on the screen",
          "Loose coping stone",
          "Mooring ring pulled out",
          "Leak at the lower gate",
          "Bridge lifts slowly",
          "Sunken dinghy",
          "Towpath washed out",
          "Windlass missing",
          "Ladder rung bent",
          "Water level low",
          "Sign knocked over");

  private static final List<String> CONTACTS =
      List.of("H. Varga", "M. Tolland", "S. Abara", "J. Quennell", "D. Osei", "R. Lindqvist");

  private final People people;
  private final Accounts accounts;
  private final Records records;
  private final HouseStore house;
  private final JsonMapper json;
  private final Clock clock;

  DemoWorld(
      People people,
      Accounts accounts,
      Records records,
      HouseStore house,
      JsonMapper json,
      Clock clock) {
    this.people = people;
    this.accounts = accounts;
    this.records = records;
    this.house = house;
    this.json = json;
    this.clock = clock;
  }

  void load() {
    PersonId hana = people.addFirstCoordinator("Hana Vesely");
    Map<String, PersonId> byName = new HashMap<>(Map.of("Hana Vesely", hana));
    Map<String, TeamId> teams = crew(hana, byName);
    accounts(hana, byName, teams);
    Map<String, Long> places = new HashMap<>();
    for (String[] place : PLACES) {
      places.put(place[0], people.addPlace(hana, place[0], place[1], Optional.empty()));
    }
    tickets(hana, byName, places);
  }

  private Map<String, TeamId> crew(PersonId hana, Map<String, PersonId> byName) {
    Map<String, TeamId> teams = new HashMap<>();
    TeamId everyone = people.addTeam(hana, "Everyone", "plum");
    for (int i = 0; i < TEAM_ORDER.size(); i++) {
      String name = TEAM_ORDER.get(i);
      TeamId team = people.addTeam(hana, name, HUES.get(i));
      teams.put(name, team);
      people.join(hana, everyone, Optional.empty(), Optional.of(team));
      for (String person : CREW.get(name)) {
        PersonId id =
            byName.computeIfAbsent(person, key -> people.add(hana, key, Person.Standing.HOUSE));
        people.join(hana, team, Optional.of(id), Optional.empty());
      }
    }
    for (String person : MORE) {
      byName.put(person, people.add(hana, person, Person.Standing.HOUSE));
      people.join(hana, everyone, Optional.of(byName.get(person)), Optional.empty());
    }
    byName.put("Odile Strand", people.add(hana, "Odile Strand", Person.Standing.AGENCY));
    people.add(hana, "Osier Marina", Person.Standing.OUTSIDE);
    people.add(hana, "Boaters’ Noticeboard", Person.Standing.OUTSIDE);
    return teams;
  }

  private void accounts(PersonId hana, Map<String, PersonId> byName, Map<String, TeamId> teams) {
    Map<String, Person.AccountRight> rights =
        Map.of(
            "Hana Vesely", Person.AccountRight.COORDINATOR,
            "Marguerite Pell", Person.AccountRight.TEAM_COORDINATOR,
            "Ines Okafor", Person.AccountRight.WORKER,
            "Tam Birtles", Person.AccountRight.WORKER,
            "Wren Adeyemi", Person.AccountRight.WORKER);
    for (String name : rights.keySet().stream().sorted().toList()) {
      PersonId id = byName.get(name);
      Optional<Set<Long>> coordinates =
          name.startsWith("Marguerite")
              ? Optional.of(Set.of(teams.get("Upper Quill crew").value()))
              : Optional.empty();
      people.change(
          hana,
          id,
          new People.PersonChange(
              Optional.empty(), Optional.empty(), Optional.of(rights.get(name)), coordinates));
      String first = name.substring(0, name.indexOf(' ')).toLowerCase(java.util.Locale.ROOT);
      accounts.open(id, first + "@quillwater.example");
      accounts.setPassword(id, PASSWORD);
      accounts.addAppPassword(id, "Demo", PASSWORD + "-" + first);
    }
  }

  private void tickets(PersonId hana, Map<String, PersonId> byName, Map<String, Long> places) {
    SplittableRandom random = new SplittableRandom(SEED);
    LocalDate today = LocalDate.ofInstant(clock.instant(), house.house().zone());
    List<String> workers =
        byName.keySet().stream()
            .filter(name -> !name.equals("Hana Vesely") && !name.equals("Odile Strand"))
            .sorted()
            .toList();
    for (int i = 0; i < TICKETS; i++) {
      ObjectNode body = ticket(random, today, i, places);
      if (i % 8 != 7) {
        String lead = workers.get(random.nextInt(workers.size()));
        ArrayNode on = body.putArray("people");
        LocalDateTime due = LocalDateTime.parse(body.get("due").get("at").asString());
        LocalDateTime given = due.minusDays(1 + random.nextInt(3)).with(LocalTime.of(8, 40));
        on.addObject()
            .put("role", RoleId.LEAD.value())
            .put("person", byName.get(lead).value())
            .put("given", given.toString());
        String other = workers.get(random.nextInt(workers.size()));
        if (i % 3 == 0 && !other.equals(lead)) {
          on.addObject()
              .put("role", RoleId.SUPPORT.value())
              .put("person", byName.get(other).value())
              .put("given", given.toString());
        }
      }
      records.create(hana, Optional.of("demo-" + i), body);
    }
  }

  private ObjectNode ticket(
      SplittableRandom random, LocalDate today, int i, Map<String, Long> places) {
    ObjectNode body = json.createObjectNode();
    body.put("kind", "TICKET");
    body.put("title", REPORTS.get(random.nextInt(REPORTS.size())));
    List<String> codes = places.keySet().stream().sorted().toList();
    body.put("place", places.get(codes.get(random.nextInt(codes.size()))));
    LocalDate day = today.plusDays(i / 3 - 4L);
    if (day.getDayOfWeek() == DayOfWeek.SUNDAY) {
      day = day.plusDays(1);
    }
    LocalTime time = LocalTime.of(8 + random.nextInt(10), random.nextInt(2) * 30);
    body.putObject("due").put("at", day.atTime(time).toString());
    ObjectNode details = body.putObject("details");
    details.put("contact", CONTACTS.get(random.nextInt(CONTACTS.size())));
    details.put("phone", "0555 01" + (10 + random.nextInt(90)));
    if (i % 4 == 0) {
      details.put("gate code", Integer.toString(1000 + random.nextInt(9000)));
    }
    if (i % 5 == 0) {
      details.put("quote", (80 + random.nextInt(40) * 10) + " agreed");
    }
    if (i % 6 == 1) {
      details.put("notes", "Boater reported it twice.\nBring the long windlass.");
    }
    body.put(
        "state",
        day.isBefore(today.minusDays(1)) ? "DONE" : i % 11 == 3 ? "TENTATIVE" : "CONFIRMED");
    return body;
  }
}
