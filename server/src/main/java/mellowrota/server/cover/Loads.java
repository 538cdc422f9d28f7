package mellowrota.server.cover;

import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Load;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** How much everybody has in some days. */
@Service
@RequiredArgsConstructor
class Loads {

  private final Covers covers;
  private final CrewTimes crew;

  /**
   * Somebody's.
   *
   * @param contract of a week; empty: nobody has said
   */
  record Laden(Person person, Optional<Duration> contract, Load load) {}

  /** Of those the asker answers for, by name. */
  List<Laden> of(World world, Person asker, LocalDate first, LocalDate until) {
    Set<PersonId> watched = covers.watched(world, asker);
    CrewTimes.Around around =
        crew.around(world, List.of(), first.minusDays(1), until.plusDays(1), watched);
    Map<PersonId, List<Load.Given>> given = new HashMap<>();
    for (OnIt one : crew.given()) {
      given
          .computeIfAbsent(one.person(), key -> new ArrayList<>())
          .add(
              new Load.Given(
                  one.id(),
                  one.record().estimate(),
                  Optional.of(LocalTimes.day(one.given(), around.zone(one.person()))),
                  around.dueDay(one),
                  world.places().workDays(one.record().place()),
                  one.isTentative()));
    }
    return Covers.here(world).stream()
        .filter(watched::contains)
        .map(
            id ->
                new Laden(
                    world.person(id),
                    around.terms(id).contract(),
                    Load.of(
                        around.commitments(id),
                        given.getOrDefault(id, List.of()),
                        DaySpan.of(first, until),
                        world.day())))
        .sorted(
            Comparator.comparing((Laden one) -> one.person().name())
                .thenComparing(one -> one.person().id()))
        .toList();
  }
}
