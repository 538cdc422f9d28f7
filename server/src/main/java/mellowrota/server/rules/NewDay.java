package mellowrota.server.rules;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.People;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * At the house's midnight whoever is to leave has left, and whatever dates change is projected
 * anew, as an act of the house.
 */
@Component
@RequiredArgsConstructor
class NewDay {

  private final HouseStore house;
  private final People people;
  private final Worlds worlds;
  private final Acts acts;
  private final Projection projection;

  /** Safe to run in several processes: the act's key names the day. */
  @Scheduled(fixedDelayString = "${mellow.day.look-every:20s}")
  void turn() {
    if (!house.exists()) {
      return;
    }
    people.leaveWhoseTimeIsOver();
    LocalDate done = house.projectedDay();
    LocalDate today = house.today();
    if (!today.isAfter(done)) {
      return;
    }
    acts.run(
        Acts.Wanted.byTheHouse("house.day").under(Optional.of("day-" + today)),
        act -> {
          World before = worlds.on(done);
          World after = worlds.on(today);
          Set<ProjectionInputs.Input> differing = ProjectionInputs.differing(before, after);
          projection.projectReaders(act, after, differing);
          house.setProjectedDay(today);
          return "";
        });
  }
}
