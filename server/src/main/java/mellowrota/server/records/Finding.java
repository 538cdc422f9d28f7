package mellowrota.server.records;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
import mellowrota.core.work.DetailDefinition;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.MoreNames;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** The line that finds, read with the names that its asker may know. */
@Service
@RequiredArgsConstructor
class Finding {

  private static final int LEAST_BEGUN = 2;
  private static final int MOST_COMPLETIONS = 8;
  private static final int MOST_WORDS = 4;
  private static final Pattern WORD = Pattern.compile("\\S+");

  private final HouseStore house;
  private final List<MoreNames> more;
  private final Clock clock;

  Reading read(World world, Person asker, String line) {
    return line.isBlank()
        ? new Reading(List.of(), List.of())
        : read(world, names(world, asker), line);
  }

  Reading read(World world, Names names, String line) {
    return FindLine.read(line, names, today(world));
  }

  /**
   * How the last words of a line may go on.
   *
   * @param from where they begin
   * @param names that have words which begin so, those that begin so themselves first
   */
  record Completions(int from, List<Named> names) {}

  /** By the most words of the end of the line that some names go on with. */
  static Completions completions(Names names, String line) {
    String plain = line.toLowerCase(Locale.ROOT);
    Matcher words = WORD.matcher(plain);
    List<Integer> begins = new ArrayList<>();
    while (words.find()) {
      begins.add(words.start());
    }
    for (int from : begins.subList(Math.max(0, begins.size() - MOST_WORDS), begins.size())) {
      String begun = plain.substring(from);
      if (begun.length() >= LEAST_BEGUN) {
        List<Named> found =
            names.all().stream()
                .filter(one -> (" " + one.name().toLowerCase(Locale.ROOT)).contains(" " + begun))
                .sorted(
                    Comparator.comparing(
                            (Named one) -> !one.name().toLowerCase(Locale.ROOT).startsWith(begun))
                        .thenComparing(Named::name))
                .limit(MOST_COMPLETIONS)
                .toList();
        if (!found.isEmpty()) {
          return new Completions(from, found);
        }
      }
    }
    return new Completions(line.length(), List.of());
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
        .map(one -> Named.of(Sort.PERSON, one.name(), new Piece.On(one.id(), Optional.empty())))
        .forEach(found::add);
    if (crew) {
      world.crew().teams().stream()
          .map(one -> Named.of(Sort.TEAM, one.name(), new Piece.OfTeam(one.id())))
          .forEach(found::add);
      world.placeList().stream()
          .map(
              one ->
                  new Named(
                      Sort.PLACE, one.name(), Optional.of(one.code()), new Piece.AtPlace(one.id())))
          .forEach(found::add);
    }
    more.forEach(one -> found.addAll(one.names(asker)));
    Map<String, RoleId> roles =
        world.roles().stream().collect(Collectors.toMap(Role::name, Role::id, (a, b) -> a));
    List<DetailDefinition> details =
        world.details().all().stream().filter(DetailDefinition::isWritten).toList();
    return new Names(found, roles, details);
  }
}
