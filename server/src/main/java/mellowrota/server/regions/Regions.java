package mellowrota.server.regions;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.find.Names;
import mellowrota.core.find.Names.Named;
import mellowrota.core.find.Piece;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingDays.Closure;
import mellowrota.core.time.WorkingDays.Holiday;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.WorkDays;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Places;
import mellowrota.server.platform.Problem;
import mellowrota.server.regions.store.RegionStore;
import mellowrota.server.sight.MoreNames;
import mellowrota.server.sight.WorkedDays;
import org.springframework.stereotype.Service;

/** Regions and closures as they are kept. */
@Service
@RequiredArgsConstructor
public class Regions implements WorkedDays, MoreNames {

  private final RegionStore store;
  private final Places places;
  private final HouseStore house;
  private final Acts acts;

  /**
   * A region.
   *
   * @param week empty: as the house's
   * @param holidays by day
   */
  public record Kept(long id, String name, Optional<WorkingWeek> week, List<Holiday> holidays) {
    WorkingDays.Region said() {
      return new WorkingDays.Region(week, holidays);
    }
  }

  /**
   * What is said of a place or, where no place is named, of the house.
   *
   * @param region in which it lies; empty: the house's, and for the house none
   * @param week empty: as its region's, then the house's; the house's own is settled elsewhere
   */
  public record Said(Optional<Long> region, Optional<WorkingWeek> week, List<Closure> closures) {}

  /** The office's alone. */
  @Override
  public List<Named> names(Person asker) {
    return asker.isCoordinator() || asker.isTeamCoordinator()
        ? all().stream()
            .map(one -> Named.of(Names.Sort.REGION, one.name(), new Piece.InRegion(one.id())))
            .toList()
        : List.of();
  }

  /** All of them, by name. */
  public List<Kept> all() {
    return store.all();
  }

  /** Adds one without holidays. */
  public long add(PersonId actor, String name, Optional<WorkingWeek> week) {
    List<Long> made = new ArrayList<>();
    act(
        actor,
        "house.region",
        () -> {
          requireFree(name, 0);
          made.add(store.add(name, week));
        });
    return made.get(0);
  }

  /**
   * Says a region anew, its holidays too.
   *
   * @throws Problem where there is none such, or its name is another's
   */
  public void set(
      PersonId actor,
      long id,
      String name,
      Optional<WorkingWeek> week,
      Collection<Holiday> holidays) {
    act(
        actor,
        "house.region",
        () -> {
          requireFree(name, id);
          store.set(id, name, week, holidays);
        });
  }

  private void requireFree(String name, long id) {
    if (all().stream().anyMatch(one -> one.name().equals(name) && one.id() != id)) {
      throw Problem.of(409, "name-taken", say("regions.there-is-already-a"));
    }
  }

  /**
   * Takes a region away.
   *
   * @throws Problem where there is none such, or something lies in it
   */
  public void remove(PersonId actor, long id) {
    act(
        actor,
        "house.region",
        () -> {
          List<String> in = new ArrayList<>();
          Map<PlaceId, Places.Days> days = places.days();
          places.all().stream()
              .filter(place -> days.get(place.id()).region().equals(Optional.of(id)))
              .forEach(place -> in.add(place.name()));
          if (house.region().equals(Optional.of(id))) {
            in.add("the house");
          }
          if (!in.isEmpty()) {
            throw Problem.of(
                409, "in-use", say("regions.these-belong-to-this", String.join(", ", in)));
          }
          store.remove(id);
        });
  }

  /** What is said of a place; empty: of the house. */
  public Said said(Optional<PlaceId> place) {
    List<Closure> closures = closures().getOrDefault(place, List.of());
    if (place.isEmpty()) {
      return new Said(house.region(), Optional.empty(), closures);
    }
    Places.Days days =
        Optional.ofNullable(places.days().get(place.get())).orElseThrow(Problem::notFound);
    return new Said(days.region(), days.week(), closures);
  }

  /** Says it anew. */
  public void set(PersonId actor, Optional<PlaceId> place, Said said) {
    act(
        actor,
        "house.days",
        () -> {
          if (place.isPresent()) {
            places.setDays(place.get(), new Places.Days(said.region(), said.week()));
          } else {
            house.setRegion(said.region());
          }
          store.setClosures(place, said.closures());
        });
  }

  private void act(PersonId actor, String kind, Runnable change) {
    acts.run(
        Acts.Wanted.by(actor, kind, Optional.empty(), "").changingTheWorld(),
        act -> {
          change.run();
          return "";
        });
  }

  /** By place; without one: of the whole house. */
  Map<Optional<PlaceId>, List<Closure>> closures() {
    return store.closures();
  }

  @Override
  public WorkDays now(WorkingWeek house) {
    Map<Long, WorkingDays.Region> regions = new HashMap<>();
    all().forEach(one -> regions.put(one.id(), one.said()));
    Map<Optional<PlaceId>, List<Closure>> closures = closures();
    List<Closure> everywhere = closures.getOrDefault(Optional.empty(), List.of());
    WorkingDays.Region office =
        said(Optional.empty()).region().map(regions::get).orElse(WorkingDays.Region.UNSAID);
    Map<PlaceId, WorkingDays> places = new HashMap<>();
    this.places
        .days()
        .forEach(
            (place, days) ->
                places.put(
                    place,
                    WorkingDays.of(
                        days.week(),
                        days.region().map(regions::get),
                        Stream.concat(
                                everywhere.stream(),
                                closures.getOrDefault(Optional.of(place), List.of()).stream())
                            .toList(),
                        house,
                        office)));
    return new WorkDays(
        places, WorkingDays.of(Optional.empty(), Optional.of(office), everywhere, house, office));
  }
}
