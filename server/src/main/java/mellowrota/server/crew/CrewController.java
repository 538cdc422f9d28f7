package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Teams;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** People, teams, places and roles over HTTP. The crew may look; coordinators change. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class CrewController {

  private static final Set<String> HUES =
      Set.of("lagoon", "heather", "slate", "moss", "plum", "umber");

  private final People people;
  private final HouseStore house;
  private final Teams teams;
  private final AccountStates accounts;
  private final AsSeen asSeen;
  private final Acts acts;

  /**
   * Somebody of the house.
   *
   * @param email told to coordinators
   * @param account NONE, INVITED or OPEN; told to coordinators
   */
  @Schema(name = "Person")
  record PersonView(
      long id,
      String name,
      Person.Standing standing,
      Person.@Nullable AccountRight right,
      List<Long> teams,
      @Nullable List<Long> coordinates,
      @Nullable String email,
      @Schema(allowableValues = {"NONE", "INVITED", "OPEN"}) @Nullable String account,
      @With String tag)
      implements AsSeen.Tagged<PersonView> {}

  @Schema(name = "Team")
  record TeamView(long id, String name, String hue, List<MemberView> members, @With String tag)
      implements AsSeen.Tagged<TeamView> {}

  /** A person or a nested team in a team. */
  @Schema(name = "Member")
  record MemberView(long id, @Nullable Long person, @Nullable Long team, String from) {}

  @Schema(name = "Place")
  record PlaceView(long id, String code, String name, @Nullable String zone, @With String tag)
      implements AsSeen.Tagged<PlaceView> {}

  @Schema(name = "Role")
  record RoleView(int number, String name, List<Role.Right> rights) {}

  @Schema(name = "CrewPersonChange")
  record PersonSchema(
      @Nullable String name,
      Person.@Nullable Standing standing,
      Person.@Nullable AccountRight right,
      @Schema(description = "Teams on whose records a team coordinator has office rights")
          @Nullable List<Long> coordinates) {}

  @Schema(name = "TeamChange")
  record TeamSchema(String name, @Nullable String hue) {}

  @Schema(name = "MemberWish")
  record MemberSchema(@Nullable Long person, @Nullable Long team) {}

  @Schema(name = "PlaceChange")
  record PlaceSchema(String code, String name, @Schema(nullable = true) @Nullable String zone) {}

  /** The number of what was made. */
  @Schema(name = "Made")
  record MadeView(long id) {}

  private Person asking(Asker asker) {
    return people.find(asker.person()).orElseThrow(Problem::notFound);
  }

  @GetMapping("/people")
  @Operation(summary = "List the people the caller may know of, by name")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<PersonView> people(Asker asker) {
    Person me = asking(asker);
    Map<Holder, List<Long>> teams =
        people.openMembers().stream()
            .map(Teams.Member::in)
            .collect(
                Collectors.groupingBy(
                    Membership::member,
                    Collectors.mapping(one -> one.team().value(), Collectors.toList())));
    Map<PersonId, AccountStates.State> known = me.isCoordinator() ? accounts.accounts() : Map.of();
    return house.people().stream()
        .filter(p -> WorkTimes.seesCrew(me) || p.id().equals(me.id()))
        .filter(p -> me.isCoordinator() || !p.hasLeft())
        .sorted(Comparator.comparing(Person::name).thenComparing(p -> p.id().value()))
        .map(p -> view(p, me, teams.getOrDefault(Holder.of(p.id()), List.of()), known.get(p.id())))
        .toList();
  }

  private static PersonView view(
      Person p, Person me, List<Long> teams, AccountStates.State account) {
    boolean office = me.isCoordinator();
    return AsSeen.tagged(
        new PersonView(
            p.id().value(),
            p.name(),
            p.standing(),
            office ? p.right() : null,
            List.copyOf(new TreeSet<>(teams)),
            office ? p.coordinates().stream().map(TeamId::value).sorted().toList() : null,
            account == null ? null : account.email(),
            office ? (account == null ? "NONE" : account.open() ? "OPEN" : "INVITED") : null,
            ""));
  }

  @PostMapping("/people")
  @Operation(summary = "Add a person; their own calendar is created at once")
  ResponseEntity<MadeView> addPerson(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = PersonSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, Set.of("name", "standing"));
    String name = input.required("name", 100);
    Person.Standing standing =
        input.choice("standing", Person.Standing.class).orElse(Person.Standing.HOUSE);
    input.check();
    return made(
        acts.make(
            asker.person(),
            key,
            "crew.person",
            body.toString(),
            () -> people.add(asker.person(), name, standing).value()));
  }

  @PatchMapping("/people/{id}")
  @Operation(summary = "Change a person; with standing LEFT they stop reading everything at once")
  ResponseEntity<Void> changePerson(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = PersonSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, PersonSchema.class);
    Optional<String> name = input.ifSent("name", field -> input.required(field, 100));
    Optional<Person.Standing> standing = input.choice("standing", Person.Standing.class);
    Optional<Person.AccountRight> right = input.choice("right", Person.AccountRight.class);
    Optional<Set<TeamId>> coordinates = coordinates(body, input);
    input.check();
    asSeen.change(
        match,
        () -> AsSeen.only(people(asker), one -> one.id() == id),
        body,
        () ->
            people.change(
                asker.person(),
                PersonId.of(id),
                new People.PersonChange(name, standing, right, coordinates)));
    return ResponseEntity.noContent().build();
  }

  private static Optional<Set<TeamId>> coordinates(JsonNode body, Input input) {
    if (!input.has("coordinates")) {
      return Optional.empty();
    }
    Set<TeamId> found = new HashSet<>();
    JsonNode list = body.get("coordinates");
    if (!list.isArray() || list.size() > 200) {
      input.fault("coordinates", say("crew.must-be-a-list"));
      return Optional.empty();
    }
    for (JsonNode item : list) {
      if (!item.isIntegralNumber() || !item.canConvertToLong()) {
        input.fault("coordinates", say("crew.must-hold-numbers-of"));
        return Optional.empty();
      }
      found.add(TeamId.of(item.asLong()));
    }
    return Optional.of(found);
  }

  @GetMapping("/teams")
  @Operation(summary = "List the teams with their members")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<TeamView> teams(Asker asker) {
    if (!WorkTimes.seesCrew(asking(asker))) {
      return List.of();
    }
    Map<TeamId, List<Teams.Member>> members =
        people.openMembers().stream().collect(Collectors.groupingBy(one -> one.in().team()));
    return teams.all().stream()
        .sorted(Comparator.comparing(one -> one.team().name()))
        .map(
            one ->
                AsSeen.tagged(
                    new TeamView(
                        one.team().id().value(),
                        one.team().name(),
                        one.hue(),
                        members.getOrDefault(one.team().id(), List.of()).stream()
                            .map(CrewController::view)
                            .toList(),
                        "")))
        .toList();
  }

  private static MemberView view(Teams.Member member) {
    Holder who = member.in().member();
    return new MemberView(
        member.id(),
        who instanceof Holder.OnePerson one ? one.person().value() : null,
        who instanceof Holder.WholeTeam nested ? nested.team().value() : null,
        member.in().from().toString());
  }

  @PostMapping("/teams")
  @Operation(summary = "Create a team; its calendar is created at once")
  ResponseEntity<MadeView> addTeam(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = TeamSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, TeamSchema.class);
    String name = input.required("name", 80);
    String hue = input.text("hue", 20);
    if (!hue.isEmpty() && !HUES.contains(hue)) {
      input.fault("hue", say("common.must-be-one-of", String.join(", ", new TreeSet<>(HUES))));
    }
    input.check();
    return made(
        acts.make(
            asker.person(),
            key,
            "crew.team",
            body.toString(),
            () -> people.addTeam(asker.person(), name, hue.isEmpty() ? "lagoon" : hue).value()));
  }

  @PatchMapping("/teams/{id}")
  @Operation(summary = "Rename a team")
  ResponseEntity<Void> renameTeam(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = TeamSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, Set.of("name"));
    String name = input.required("name", 80);
    input.check();
    asSeen.change(
        match,
        () -> AsSeen.only(teams(asker), one -> one.id() == id),
        body,
        () -> people.renameTeam(asker.person(), TeamId.of(id), name));
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/teams/{id}/members")
  @Operation(summary = "Add a person or a team to a team from today")
  ResponseEntity<Void> join(
      Asker asker,
      @PathVariable long id,
      @RequestBody @Schema(implementation = MemberSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, MemberSchema.class);
    OptionalLong person = input.number("person");
    OptionalLong team = input.number("team");
    if (person.isPresent() == team.isPresent()) {
      input.fault("person", say("crew.must-be-either-a"));
    }
    input.check();
    people.join(
        asker.person(),
        TeamId.of(id),
        person.isPresent()
            ? Holder.of(PersonId.of(person.getAsLong()))
            : Holder.of(TeamId.of(team.getAsLong())));
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/teams/{id}/members/{member}")
  @Operation(summary = "Remove a member from a team from today")
  ResponseEntity<Void> leave(Asker asker, @PathVariable long id, @PathVariable long member) {
    people.requireCoordinator(asker);
    people.leave(asker.person(), TeamId.of(id), member);
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/places")
  @Operation(summary = "List the places by name")
  @Transactional(readOnly = true)
  List<PlaceView> places(Asker asker) {
    if (!WorkTimes.seesCrew(asking(asker))) {
      return List.of();
    }
    return house.places().stream()
        .sorted(Comparator.comparing(Place::name))
        .map(
            one ->
                AsSeen.tagged(
                    new PlaceView(
                        one.id().value(),
                        one.code(),
                        one.name(),
                        one.zone().map(ZoneId::getId).orElse(null),
                        "")))
        .toList();
  }

  @PostMapping("/places")
  @Operation(summary = "Add a place; its calendar is created at once")
  ResponseEntity<MadeView> addPlace(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = PlaceSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, PlaceSchema.class);
    String code = input.required("code", 12);
    String name = input.required("name", 100);
    Optional<ZoneId> zone = input.zone("zone");
    input.check();
    return made(
        acts.make(
            asker.person(),
            key,
            "crew.place",
            body.toString(),
            () -> people.addPlace(asker.person(), code, name, zone).value()));
  }

  @PatchMapping("/places/{id}")
  @Operation(
      summary = "Rename a place, or say in which time zone it lies",
      description =
          "With another zone, what is ahead there keeps its local times; what has begun keeps its"
              + " moments. Without a zone it stays; null: the organisation's.")
  ResponseEntity<Void> changePlace(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = PlaceSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, PlaceSchema.class);
    String code = input.required("code", 12);
    String name = input.required("name", 100);
    Optional<Optional<ZoneId>> zone =
        input.has("zone") ? Optional.of(input.zone("zone")) : Optional.empty();
    input.check();
    asSeen.change(
        match,
        () -> AsSeen.only(places(asker), one -> one.id() == id),
        body,
        () -> people.changePlace(asker.person(), PlaceId.of(id), code, name, zone));
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/roles")
  @Operation(summary = "List the roles on a record and what each may change")
  @Transactional(readOnly = true)
  List<RoleView> roles() {
    return house.roles().stream()
        .map(
            role ->
                new RoleView(
                    role.id().value(),
                    role.name(),
                    role.rights().stream().sorted(Comparator.comparing(Enum::name)).toList()))
        .toList();
  }

  private static ResponseEntity<MadeView> made(long id) {
    return ResponseEntity.status(201).body(new MadeView(id));
  }
}
