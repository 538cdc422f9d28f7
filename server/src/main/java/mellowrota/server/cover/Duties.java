package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Duty;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.cover.store.DutyStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** What must be stood, as it is kept. */
@Service
@RequiredArgsConstructor
public class Duties {

  private final DutyStore store;
  private final Acts acts;

  /**
   * A duty. It is stood by whoever has the role on a shift at the place.
   *
   * @param skill asked of each of its people where its hours list no places one by one
   * @param meanwhile whether other work may be done meanwhile
   * @param lifted days on which it is not asked for
   * @param others hours of single days in place of the others
   */
  public record Kept(
      long id,
      String name,
      PlaceId place,
      RoleId role,
      Optional<String> skill,
      boolean meanwhile,
      List<Duty.Repeating> spans,
      Set<LocalDate> lifted,
      List<Duty.Other> others) {

    Post post() {
      return new Post(place, role);
    }

    /** As the core computes with it; its hours are those of the place. */
    Duty in(World world) {
      ZoneId zone =
          world.places().find(place).flatMap(Place::zone).orElse(world.places().houseZone());
      return new Duty(key(), zone, skill, spans, lifted, others);
    }

    String key() {
      return new Ask.OfDuty(id).key();
    }
  }

  /** Whoever has the role on a shift at the place is at it. */
  record Post(PlaceId place, RoleId role) {}

  /** All of them, by name. */
  List<Kept> all() {
    return store.all();
  }

  Kept find(long id) {
    return all().stream().filter(one -> one.id() == id).findFirst().orElseThrow(Problem::notFound);
  }

  /** Makes one; its number is given. */
  public long add(PersonId actor, Optional<String> key, Kept wanted) {
    return Long.parseLong(
        acts.run(
                Acts.Wanted.by(actor, "duty.add", key, wanted.toString()),
                act -> {
                  requireNew(wanted);
                  return Long.toString(store.add(wanted));
                })
            .answer());
  }

  void change(PersonId actor, Kept wanted) {
    acts.run(
        Acts.Wanted.by(actor, "duty.change", Optional.empty(), ""),
        act -> {
          find(wanted.id());
          requireNew(wanted);
          store.keep(wanted);
          return "";
        });
  }

  private void requireNew(Kept wanted) {
    if (all().stream()
        .anyMatch(one -> one.name().equals(wanted.name()) && one.id() != wanted.id())) {
      throw Problem.fault("/name", say("cover.is-already-the-name"));
    }
  }

  void remove(PersonId actor, long id) {
    acts.run(
        Acts.Wanted.by(actor, "duty.remove", Optional.empty(), ""),
        act -> {
          store.remove(id);
          return "";
        });
  }
}
