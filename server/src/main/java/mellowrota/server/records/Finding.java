package mellowrota.server.records;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.find.FindLine;
import mellowrota.core.find.Names;
import mellowrota.core.find.Names.Named;
import mellowrota.core.find.Names.Sort;
import mellowrota.core.find.Piece;
import mellowrota.core.find.Reading;
import mellowrota.core.find.Today;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** The line that finds, read with the names that its asker may know. */
@Service
@RequiredArgsConstructor
class Finding {

  private static final int LEAST_BEGUN = 2;
  private static final int MOST_COMPLETIONS = 8;

  private final HouseStore house;
  private final Clock clock;

  Reading read(World world, Person asker, String line) {
    return read(world, names(world, asker), line);
  }

  Reading read(World world, Names names, String line) {
    return FindLine.read(line, names, today(world));
  }

  /** Names with a word that begins as the line ends. */
  static List<Named> completions(Names names, String line) {
    String begun = line.substring(line.lastIndexOf(' ') + 1).toLowerCase(Locale.ROOT);
    return begun.length() < LEAST_BEGUN
        ? List.of()
        : names.all().stream()
            .filter(one -> (" " + one.name().toLowerCase(Locale.ROOT)).contains(" " + begun))
            .sorted(
                Comparator.comparing(
                        (Named one) -> !one.name().toLowerCase(Locale.ROOT).startsWith(begun))
                    .thenComparing(Named::name))
            .limit(MOST_COMPLETIONS)
            .toList();
  }

  private Today today(World world) {
    return new Today(
        LocalDateTime.ofInstant(clock.instant(), world.house().zone()),
        house.reckoning().weekBegins());
  }

  /** Whoever may not know the crew knows themselves. */
  Names names(World world, Person asker) {
    boolean crew = WorkTimes.seesCrew(asker);
    List<Named> found = new ArrayList<>();
    world.crew().people().stream()
        .filter(one -> crew || one.id().equals(asker.id()))
        .filter(one -> asker.isCoordinator() || !one.hasLeft())
        .map(one -> named(Sort.PERSON, one.name(), new Piece.On(one.id(), Optional.empty())))
        .forEach(found::add);
    if (crew) {
      world.crew().teams().stream()
          .map(one -> named(Sort.TEAM, one.name(), new Piece.OfTeam(one.id())))
          .forEach(found::add);
      world.placeList().stream()
          .map(
              one ->
                  new Named(
                      Sort.PLACE, one.name(), Optional.of(one.code()), new Piece.AtPlace(one.id())))
          .forEach(found::add);
    }
    Map<String, RoleId> roles =
        world.roles().stream().collect(Collectors.toMap(Role::name, Role::id, (a, b) -> a));
    return new Names(found, roles);
  }

  private static Named named(Sort sort, String name, Piece piece) {
    return new Named(sort, name, Optional.empty(), piece);
  }
}
