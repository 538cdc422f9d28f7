package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.ChainReader;
import mellowrota.core.deadline.Known;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Step;
import mellowrota.core.deadline.Unit;
import mellowrota.core.find.Names;
import mellowrota.core.find.Piece;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Acts;
import mellowrota.server.deadlines.store.ChainStore;
import mellowrota.server.deadlines.store.DeadlineSetStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.MoreNames;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Chains of deadlines: read with what the house has, kept as they were typed. */
@Service
@RequiredArgsConstructor
public class Chains implements MoreNames {

  private final ChainStore store;
  private final DeadlineSetStore sets;
  private final Acts acts;

  /**
   * A chain.
   *
   * @param version of its text, from 1
   * @param text as it was typed
   */
  public record Kept(long id, String name, int version, String text) {}

  /** A text as it was typed, with what its names meant. */
  public record Text(String typed, List<Meant> names) {}

  /**
   * A text of a chain.
   *
   * @param no from 1, within the chain
   */
  public record Version(long id, long chain, int no, Text text) {}

  /**
   * A method of notice.
   *
   * @param number empty: it is new
   */
  public record KeptMethod(OptionalLong number, Method method) {}

  List<Kept> all() {
    return store.all();
  }

  /** The coordinators' alone, as chains are. */
  @Override
  public List<Names.Named> names(Person asker) {
    return asker.isCoordinator()
        ? all().stream()
            .map(one -> Names.Named.of(Names.Sort.CHAIN, one.name(), new Piece.OfChain(one.id())))
            .toList()
        : List.of();
  }

  List<KeptMethod> methods() {
    return store.methods();
  }

  /**
   * What is wrong with a text, else what it says.
   *
   * @param id the chain that it would be a version of, whose names still mean what they meant
   */
  ChainReader.Reading read(World world, String text, Optional<Long> id) {
    return ChainReader.read(text, known(world, methods(), meant(id)));
  }

  /** What a text said when it was saved, whatever is called what by now. */
  Chain read(World world, List<KeptMethod> methods, Version version) {
    // Whether a method adds hours where days are counted is found when that is reckoned.
    List<KeptMethod> mild =
        methods.stream()
            .map(one -> new KeptMethod(one.number(), new Method(one.method().name(), 0, Unit.DAYS)))
            .toList();
    Known known = known(world, mild, version.text().names());
    return ChainReader.read(version.text().typed(), known)
        .chain()
        .orElseThrow(() -> Problem.of(409, "chain-unread", say("deadlines.mend-the-chain-first")));
  }

  /**
   * What a chain says now.
   *
   * @throws Problem where there is none such
   */
  Chain latest(World world, long id) {
    return store.latest(List.of(id)).stream()
        .findFirst()
        .map(version -> read(world, methods(), version))
        .orElseThrow(Problem::notFound);
  }

  /** Of people those who are still here; a name that had a meaning keeps it. */
  private static Known known(World world, List<KeptMethod> methods, List<Meant> meant) {
    List<Method> ways = new ArrayList<>();
    for (Meant one : of(meant, Meant.Sort.METHOD)) {
      methods.stream()
          .filter(method -> method.number().equals(OptionalLong.of(one.number())))
          .findFirst()
          .map(method -> method.method().called(one.name()))
          .or(() -> Optional.of(new Method(one.name(), 0, Unit.DAYS)))
          .ifPresent(ways::add);
    }
    Set<Name> taken = ways.stream().map(Method::name).collect(Collectors.toSet());
    methods.stream()
        .map(KeptMethod::method)
        .filter(one -> !taken.contains(one.name()))
        .forEach(ways::add);
    return new Known(
        ways,
        names(of(meant, Meant.Sort.ROLE), roles(world)),
        names(meant.stream().filter(one -> one.sort().isHolder()).toList(), holders(world)));
  }

  /** What the names in the text of a chain meant when that was saved last. */
  private List<Meant> meant(Optional<Long> id) {
    return store.latest(id.stream().toList()).stream()
        .flatMap(version -> version.text().names().stream())
        .toList();
  }

  private static List<Meant> of(List<Meant> meant, Meant.Sort sort) {
    return meant.stream().filter(one -> one.sort() == sort).toList();
  }

  private static List<Name> names(List<Meant> meant, Stream<Meant> now) {
    Set<Name> taken = meant.stream().map(Meant::name).collect(Collectors.toSet());
    return Stream.concat(
            meant.stream().map(Meant::name),
            now.map(Meant::name).filter(name -> !taken.contains(name)))
        .toList();
  }

  private static Stream<Meant> roles(World world) {
    return world.roles().stream()
        .map(one -> new Meant(Meant.Sort.ROLE, Name.of(one.name()), one.id().value()));
  }

  private static Stream<Meant> holders(World world) {
    return Stream.concat(
        world.crew().people().stream()
            .filter(one -> !one.hasLeft())
            .map(one -> new Meant(Meant.Sort.PERSON, Name.of(one.name()), one.id().value())),
        world.crew().teams().stream()
            .map(one -> new Meant(Meant.Sort.TEAM, Name.of(one.name()), one.id().value())));
  }

  /** A name among those of its sort. */
  private record Space(Meant.Sort sort, Name name) {}

  /** What the names in a chain mean; those that meant something before mean it still. */
  private static List<Meant> meant(
      World world, List<KeptMethod> methods, List<Meant> before, Chain chain) {
    Set<Name> ways = new HashSet<>();
    Set<Name> roles = new HashSet<>();
    Set<Name> holders = new HashSet<>();
    for (Step step : chain.steps()) {
      step.by().flatMap(Step.By::method).ifPresent(ways::add);
      for (Step.For one : step.who()) {
        (one.holding() ? roles : holders).add(one.name());
        one.as().ifPresent(roles::add);
      }
    }
    Stream<Meant> now =
        Stream.concat(
            methods.stream()
                .map(
                    one ->
                        new Meant(
                            Meant.Sort.METHOD, one.method().name(), one.number().orElseThrow())),
            Stream.concat(roles(world), holders(world)));
    Set<Meant> found = new LinkedHashSet<>();
    Set<Space> taken = new HashSet<>();
    Stream.concat(before.stream(), now)
        .filter(
            one ->
                switch (one.sort()) {
                  case METHOD -> ways.contains(one.name());
                  case ROLE -> roles.contains(one.name());
                  case PERSON, TEAM -> holders.contains(one.name());
                })
        .filter(one -> taken.add(new Space(one.sort().space(), one.name())))
        .forEach(found::add);
    return List.copyOf(found);
  }

  /**
   * Adds a chain; its number is given.
   *
   * @throws Problem where the text has faults, or another chain its name
   */
  public long add(World world, PersonId actor, String text) {
    Sound sound = sound(world, text, Optional.empty());
    return act(actor, "house.chain", () -> store.add(sound.name, sound.text));
  }

  /**
   * Keeps a text as the next version of a chain; the same text is none.
   *
   * @throws Problem as for {@link #add}, or where there is no such chain
   */
  void revise(World world, PersonId actor, long id, String text) {
    Sound sound = sound(world, text, Optional.of(id));
    if (store.find(id).orElseThrow(Problem::notFound).text().equals(text)) {
      return;
    }
    act(
        actor,
        "house.chain",
        () -> {
          store.revise(id, sound.name, sound.text);
          return id;
        });
  }

  /**
   * Takes a chain away, all its versions too.
   *
   * @throws Problem where there is none such, or there are sets of it
   */
  void remove(PersonId actor, long id) {
    act(
        actor,
        "house.chain",
        () -> {
          long count = sets.count(id);
          if (count > 0) {
            throw Problem.of(409, "in-use", say("deadlines.has-sets", count));
          }
          store.remove(id);
          return id;
        });
  }

  /** A text without faults, and what it calls its chain. */
  private record Sound(String name, Text text) {}

  private Sound sound(World world, String text, Optional<Long> id) {
    ChainReader.Reading reading = read(world, text, id);
    Optional<Chain> chain = reading.chain();
    if (chain.isEmpty()) {
      throw Problem.faults(
          reading.faults().stream()
              .map(one -> new Problem.Fault("/text", one.toString()))
              .toList());
    }
    Name name = chain.get().name();
    if (all().stream()
        .anyMatch(one -> !id.equals(Optional.of(one.id())) && Name.of(one.name()).equals(name))) {
      throw Problem.of(409, "name-taken", say("deadlines.there-is-already-a", name));
    }
    return new Sound(name.text(), new Text(text, meant(world, methods(), meant(id), chain.get())));
  }

  /** In place of all there were. */
  public void setMethods(PersonId actor, List<KeptMethod> methods) {
    act(
        actor,
        "house.methods",
        () -> {
          store.setMethods(methods);
          return 0;
        });
  }

  private long act(PersonId actor, String kind, LongSupplier change) {
    List<Long> found = new ArrayList<>();
    acts.run(
        Acts.Wanted.by(actor, kind, Optional.empty(), ""),
        act -> {
          found.add(change.getAsLong());
          return "";
        });
    return found.get(0);
  }
}
