package mellowrota.server.demo;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Duty;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.Validity;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.server.accounts.Accounts;
import mellowrota.server.accounts.DemoAccounts;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.cover.Duties;
import mellowrota.server.cover.HouseLimits;
import mellowrota.server.crew.People;
import mellowrota.server.crew.Skills;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.KeptSession;
import mellowrota.server.platform.Progress;
import mellowrota.server.records.Records;
import mellowrota.server.regions.Regions;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Quillwater Navigation, a made-up trust that keeps an inland waterway in order. Everything in it
 * is invented. It is laid through the services, relative to today, from a fixed seed.
 */
@Component
@RequiredArgsConstructor
class DemoWorld {

  private static final int TOLD_EVERY = 20;

  private final People people;
  private final WorkTimes times;
  private final Accounts accounts;
  private final Records records;
  private final Duties duties;
  private final HouseLimits limits;
  private final Skills skills;
  private final Regions regions;
  private final DemoDeadlines deadlines;
  private final HouseStore house;
  private final JsonMapper json;
  private final ActStore acts;
  private final Progress progress;
  private final Clock clock;
  private final KeptSession session;

  /** What was made so far, by name. */
  private final class Made {
    final PersonId coordinator;
    final Map<String, PersonId> persons = new TreeMap<>();
    final Map<String, TeamId> teams = new HashMap<>();
    final Map<String, Long> places = new HashMap<>();
    final Map<String, RecordId> records = new HashMap<>();
    final LocalDate today;
    private int kept;

    Made(String coordinator) {
      this.coordinator = people.addFirstCoordinator(coordinator);
      persons.put(coordinator, this.coordinator);
      today = LocalDate.ofInstant(clock.instant(), house.house().zone());
    }

    void keep(ObjectNode record) {
      Records.Saved saved =
          DemoWorld.this.records.create(coordinator, Optional.of("demo-" + kept++), record);
      records.putIfAbsent(record.get("title").asString(), saved.records().get(0));
      // All is one transaction; what is kept already need not be compared again for the next.
      session.forget();
    }
  }

  void load() {
    JsonNode world = Resources.read(json, "demo.json");
    progress.at("laying the demo: its people, places and duties");
    Made made = new Made(world.get("coordinator").asString());
    crew(world, made);
    accounts(world, made);
    for (JsonNode place : world.get("places")) {
      PlaceId id =
          people.addPlace(
              made.coordinator,
              place.get("code").asString(),
              place.get("name").asString(),
              Optional.ofNullable(place.get("zone")).map(JsonNode::asString).map(ZoneId::of));
      made.places.put(place.get("code").asString(), id.value());
    }
    times(world, made);
    skills(world, made);
    regions(world, made);
    duties(world, made);
    // Here a day on the bridge is fourteen hours.
    limits.longest(made.coordinator, Duration.ofHours(14));
    // What went wrong here went wrong before anybody minded.
    limits.mind(made.coordinator, Clash.Level.WARN);
    DemoWork work = new DemoWork(json, world, made.persons, made.teams, made.places, made.today);
    List<ObjectNode> all = work.records();
    for (ObjectNode one : all) {
      if (made.kept % TOLD_EVERY == 0) {
        progress.at("laying the demo: " + made.kept + " of " + all.size() + " records");
      }
      made.keep(one);
    }
    progress.at("laying the demo: its deadlines");
    deadlines.lay(world, made.coordinator, made.places, made.records, made.today);
    progress.at("laying the demo: its last changes");
    house.setSeenUntil(acts.last());
    for (DemoWork.Later later : work.changes()) {
      records.change(
          made.coordinator,
          made.records.get(later.title()),
          Optional.of("demo-later-" + later.title()),
          "*",
          later.body());
    }
    limits.mind(made.coordinator, Clash.Level.NEVER);
  }

  /** What people can, with the days until it ends. */
  private void skills(JsonNode world, Made made) {
    for (JsonNode person : world.get("people")) {
      Map<String, Validity> found = new TreeMap<>();
      person
          .path("skills")
          .properties()
          .forEach(
              one ->
                  found.put(
                      one.getKey(),
                      one.getValue().isNull()
                          ? Validity.ALWAYS
                          : Validity.until(made.today.plusDays(one.getValue().asInt()))));
      boolean notAlone = person.path("notAlone").asBoolean(false);
      if (notAlone || !found.isEmpty()) {
        skills.set(
            made.coordinator,
            made.persons.get(person.get("name").asString()),
            new Skills.Known(found, notAlone));
      }
    }
  }

  /** The one that names no places is the house's. */
  private void regions(JsonNode world, Made made) {
    Map<String, Long> regionOf = new HashMap<>();
    Map<String, List<WorkingDays.Closure>> closuresOf = new HashMap<>();
    for (JsonNode region : world.get("regions")) {
      String name = region.get("name").asString();
      long id = regions.add(made.coordinator, name, Optional.empty());
      List<WorkingDays.Holiday> holidays = new ArrayList<>();
      for (JsonNode one : region.get("holidays")) {
        LocalDate day = made.today.plusDays(one.get("day").asInt());
        boolean half = one.path("half").asBoolean(false);
        holidays.add(new WorkingDays.Holiday(day, one.get("name").asString(), half));
      }
      regions.set(made.coordinator, id, name, Optional.empty(), holidays);
      region.path("places").forEach(code -> regionOf.put(code.asString(), id));
      if (!region.has("places")) {
        regions.set(
            made.coordinator,
            Optional.empty(),
            new Regions.Said(Optional.of(id), Optional.empty(), List.of()));
      }
    }
    for (JsonNode one : world.get("closures")) {
      LocalDate first = made.today.plusDays(one.get("first").asInt());
      LocalDate until = made.today.plusDays(one.get("last").asInt() + 1L);
      closuresOf
          .computeIfAbsent(one.get("place").asString(), key -> new ArrayList<>())
          .add(new WorkingDays.Closure(DaySpan.of(first, until), one.get("why").asString()));
    }
    Set<String> codes = new TreeSet<>(regionOf.keySet());
    codes.addAll(closuresOf.keySet());
    for (String code : codes) {
      regions.set(
          made.coordinator,
          Optional.of(PlaceId.of(made.places.get(code))),
          new Regions.Said(
              Optional.ofNullable(regionOf.get(code)),
              Optional.empty(),
              closuresOf.getOrDefault(code, List.of())));
    }
  }

  /** Each of the spans that a duty lists is one more person, alike ones together. */
  private void duties(JsonNode world, Made made) {
    for (JsonNode duty : world.get("duties")) {
      Map<String, Integer> counts = new TreeMap<>();
      duty.get("spans")
          .forEach(
              span ->
                  counts.merge(
                      span.get(0).asString() + "/" + span.get(1).asString(), 1, Integer::sum));
      List<Duty.Repeating> spans = new ArrayList<>();
      counts.forEach(
          (span, count) ->
              spans.add(
                  new Duty.Repeating(
                      EnumSet.allOf(DayOfWeek.class),
                      Duty.Stand.of(
                          LocalTime.parse(span.split("/")[0]),
                          LocalTime.parse(span.split("/")[1]),
                          count),
                      Validity.until(made.today.plusDays(DemoWork.DAYS_LAID - 1L)),
                      Optional.empty())));
      duties.add(
          made.coordinator,
          Optional.empty(),
          new Duties.Kept(
              0,
              duty.get("name").asString(),
              PlaceId.of(made.places.get(duty.get("place").asString())),
              RoleId.LEAD,
              Optional.ofNullable(duty.get("skill")).map(JsonNode::asString),
              duty.path("meanwhile").asBoolean(false),
              spans,
              Set.of(),
              List.of()));
    }
  }

  private void crew(JsonNode world, Made made) {
    PersonId hana = made.coordinator;
    TeamId everyone = people.addTeam(hana, "Everyone", "plum");
    for (JsonNode team : world.get("teams")) {
      String name = team.get("name").asString();
      TeamId id = people.addTeam(hana, name, team.get("hue").asString());
      made.teams.put(name, id);
      people.join(hana, everyone, Holder.of(id));
    }
    for (JsonNode person : world.get("people")) {
      String name = person.get("name").asString();
      Person.Standing standing =
          person.has("standing")
              ? Person.Standing.valueOf(person.get("standing").asString())
              : Person.Standing.HOUSE;
      PersonId id = made.persons.computeIfAbsent(name, key -> people.add(hana, key, standing));
      for (JsonNode team : person.path("teams")) {
        people.join(hana, made.teams.get(team.asString()), Holder.of(id));
      }
      if (standing == Person.Standing.HOUSE && person.path("teams").isEmpty()) {
        people.join(hana, everyone, Holder.of(id));
      }
    }
  }

  private static People.PersonChange right(JsonNode person, Made made) {
    Set<TeamId> coordinates =
        person
            .path("coordinates")
            .valueStream()
            .map(team -> made.teams.get(team.asString()))
            .collect(Collectors.toSet());
    return new People.PersonChange(
        Optional.empty(),
        Optional.empty(),
        Optional.of(Person.AccountRight.valueOf(person.get("right").asString())),
        coordinates.isEmpty() ? Optional.empty() : Optional.of(coordinates));
  }

  private void accounts(JsonNode world, Made made) {
    for (JsonNode person : world.get("people")) {
      if (!person.has("right")) {
        continue;
      }
      String name = person.get("name").asString();
      PersonId id = made.persons.get(name);
      people.change(made.coordinator, id, right(person, made));
      String first = name.substring(0, name.indexOf(' ')).toLowerCase(Locale.ROOT);
      accounts.open(id, first + "@quillwater.example");
      accounts.setPassword(id, DemoAccounts.PASSWORD);
      accounts.addAppPassword(id, "Demo", DemoAccounts.PASSWORD + "-" + first);
    }
  }

  private void hours(JsonNode world, Made made, JsonNode person) {
    PersonId id = made.persons.get(person.get("name").asString());
    String sort = person.get("hours").asString();
    List<WorkTimes.Hours> hours =
        world
            .get("hours")
            .get(sort)
            .propertyStream()
            .map(day -> hours(id, day.getKey(), day.getValue()))
            .toList();
    times.setHours(made.coordinator, id, hours);
    Duration contract = Duration.ofHours(world.get("contracts").get(sort).asInt());
    times.setTerms(
        made.coordinator,
        id,
        new WorkTimes.Terms(Optional.empty(), Optional.of(contract), Optional.empty()));
  }

  private void times(JsonNode world, Made made) {
    for (JsonNode person : world.get("people")) {
      if (person.has("hours")) {
        hours(world, made, person);
      }
    }
    otherHours(world, made);
    for (JsonNode leave : world.get("leave")) {
      LocalDate first = made.today.plusDays(leave.get("first").asInt());
      times.addLeave(
          made.coordinator,
          made.persons.get(leave.get("person").asString()),
          DaySpan.of(first, first.plusDays(leave.get("days").asInt())),
          Optional.empty(),
          !leave.path("asked").asBoolean(false),
          leave.path("sick").asBoolean(false));
    }
  }

  /** Who is on work of a day on which they are not at work as a rule has other hours then. */
  private void otherHours(JsonNode world, Made made) {
    new DemoShifts(world, made.today)
        .otherHours()
        .forEach(
            (name, days) -> days.forEach(day -> otherHours(made, made.persons.get(name), day)));
  }

  private void otherHours(Made made, PersonId person, DemoShifts.Times day) {
    times.setDated(
        made.coordinator,
        person,
        day.start().toLocalDate(),
        Optional.empty(),
        Optional.of(
            List.of(new WorkTimes.Span(day.start().toLocalTime(), day.end().toLocalTime()))));
  }

  private static WorkTimes.Hours hours(PersonId person, String weekday, JsonNode span) {
    return new WorkTimes.Hours(
        person,
        DayOfWeek.of(Integer.parseInt(weekday)),
        LocalTime.parse(span.get(0).asString()),
        LocalTime.parse(span.get(1).asString()),
        Optional.empty(),
        Optional.empty(),
        Optional.empty());
  }
}
