package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.LongSupplier;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.ChainReader;
import mellowrota.core.deadline.Known;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.Team;
import mellowrota.server.acts.Acts;
import mellowrota.server.deadlines.store.ChainStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Chains of deadlines: read with what the house has, kept as they were typed. */
@Service
@RequiredArgsConstructor
public class Chains {

  private final ChainStore store;
  private final Acts acts;

  /**
   * A chain.
   *
   * @param version of its text, from 1
   * @param text as it was typed
   */
  public record Kept(long id, String name, int version, String text) {}

  List<Kept> all() {
    return store.all();
  }

  List<Method> methods() {
    return store.methods();
  }

  /** What is wrong with a text, else what it says. */
  ChainReader.Reading read(World world, String text) {
    return ChainReader.read(text, known(world));
  }

  /** Of people those who are still here; teams and people share one space of names. */
  private Known known(World world) {
    Stream<String> people =
        world.crew().people().stream().filter(one -> !one.hasLeft()).map(Person::name);
    Stream<String> teams = world.crew().teams().stream().map(Team::name);
    return new Known(
        store.methods(),
        world.roles().stream().map(Role::name).map(Name::of).toList(),
        Stream.concat(people, teams).map(Name::of).toList());
  }

  /**
   * Adds a chain; its number is given.
   *
   * @throws Problem where the text has faults, or another chain its name
   */
  long add(World world, PersonId actor, String text) {
    String name = sound(world, text, 0);
    return act(actor, "house.chain", () -> store.add(name, text));
  }

  /**
   * Keeps a text as the next version of a chain; the same text is none.
   *
   * @throws Problem as for {@link #add}, or where there is no such chain
   */
  void revise(World world, PersonId actor, long id, String text) {
    String name = sound(world, text, id);
    if (store.find(id).orElseThrow(Problem::notFound).text().equals(text)) {
      return;
    }
    act(
        actor,
        "house.chain",
        () -> {
          store.revise(id, name, text);
          return id;
        });
  }

  /**
   * Takes a chain away, all its versions too.
   *
   * @throws Problem where there is none such
   */
  void remove(PersonId actor, long id) {
    act(
        actor,
        "house.chain",
        () -> {
          store.remove(id);
          return id;
        });
  }

  /** What it is called. */
  private String sound(World world, String text, long id) {
    ChainReader.Reading reading = read(world, text);
    Optional<Chain> chain = reading.chain();
    if (chain.isEmpty()) {
      throw Problem.faults(
          reading.faults().stream()
              .map(one -> new Problem.Fault("/text", one.toString()))
              .toList());
    }
    Name name = chain.get().name();
    if (all().stream().anyMatch(one -> one.id() != id && Name.of(one.name()).equals(name))) {
      throw Problem.of(409, "name-taken", say("deadlines.there-is-already-a", name));
    }
    return name.text();
  }

  /** In place of all there were. */
  void setMethods(PersonId actor, List<Method> methods) {
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
