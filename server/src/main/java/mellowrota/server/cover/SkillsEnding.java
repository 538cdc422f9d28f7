package mellowrota.server.cover;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Work;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.LocalTimes;
import mellowrota.server.crew.Skills;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Skills that end before long, with the work that somebody has after that and wants them. */
@Service
@RequiredArgsConstructor
class SkillsEnding {

  private static final int DAYS = 60;

  private final Covers covers;
  private final CrewTimes crew;
  private final Duties duties;
  private final Skills skills;

  /**
   * One skill of somebody's.
   *
   * @param last the day on which it still holds
   * @param touched how many of their works after it want it
   * @param first when the first of these begins
   */
  record Ending(
      Person person, String skill, LocalDate last, int touched, Optional<Instant> first) {}

  /** Of those the asker answers for, the soonest first. */
  List<Ending> of(World world, Person asker) {
    LocalDate today = world.day();
    LocalDate until = today.plusDays(DAYS);
    Map<PersonId, Map<String, LocalDate>> ending = new HashMap<>();
    Set<PersonId> watched = covers.watched(world, asker);
    Map<PersonId, Skills.Known> known = skills.all();
    for (PersonId person : Covers.here(world)) {
      if (watched.contains(person)) {
        known
            .getOrDefault(person, Skills.Known.NOTHING)
            .skills()
            .forEach(
                (skill, days) ->
                    days.last()
                        .filter(day -> !day.isBefore(today) && day.isBefore(until))
                        .ifPresent(
                            day ->
                                ending
                                    .computeIfAbsent(person, key -> new HashMap<>())
                                    .put(skill, day)));
      }
    }
    CrewTimes.Around around =
        crew.around(world, duties.all(), today, until, ending.keySet(), Set.of(), Set.of());
    List<Ending> found = new ArrayList<>();
    ending.forEach(
        (person, all) -> {
          List<Work> works = around.commitments(person).work();
          all.forEach((skill, last) -> found.add(of(world.person(person), works, skill, last)));
        });
    found.sort(
        Comparator.comparing(Ending::last)
            .thenComparing(one -> one.person().name())
            .thenComparing(Ending::skill));
    return found;
  }

  private static Ending of(Person person, List<Work> works, String skill, LocalDate last) {
    List<Instant> after =
        works.stream()
            .filter(one -> one.asks().places().contains(Optional.of(skill)))
            .filter(one -> LocalTimes.day(one.span().end().minusNanos(1), one.site()).isAfter(last))
            .map(one -> one.span().start())
            .sorted()
            .toList();
    return new Ending(person, skill, last, after.size(), after.stream().findFirst());
  }
}
