package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.TreeSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.PlaceId;
import org.testng.annotations.Test;

/**
 * Work takes room of its place and of all that it uses, each counted by itself, quarter of an hour
 * by quarter of an hour. {@code -Dcrews=20000} tries more.
 */
public class RoomsTest {

  private static final int CREWS = Integer.getInteger("crews", 400);
  private static final int PLACES = 4;
  private static final int QUARTERS = 48;
  private static final Instant MIDNIGHT = Instant.parse("2026-12-07T00:00:00Z");

  private static Instant at(int quarter) {
    return MIDNIGHT.plus(Duration.ofMinutes(15L * quarter));
  }

  private static TimeSpan span(SplittableRandom random) {
    int from = random.nextInt(QUARTERS);
    return TimeSpan.of(at(from), at(from + 1 + random.nextInt(QUARTERS - from)));
  }

  private static Set<PersonId> people(SplittableRandom random) {
    Set<PersonId> found = new TreeSet<>();
    for (int i = random.nextInt(4); i > 0; i--) {
      found.add(PersonId.of(1 + random.nextInt(6)));
    }
    return found;
  }

  private static List<PlaceId> used(SplittableRandom random) {
    Set<PlaceId> found = new TreeSet<>();
    for (int i = random.nextInt(3); i > 0; i--) {
      found.add(PlaceId.of(1 + random.nextInt(PLACES)));
    }
    return List.copyOf(found);
  }

  private static Work work(SplittableRandom random) {
    List<PlaceId> uses = used(random);
    Optional<PlaceId> place =
        Optional.of(PlaceId.of(1 + random.nextInt(PLACES)))
            .filter(one -> !uses.contains(one) && random.nextInt(4) > 0);
    return new Work(
        "trial",
        span(random),
        Optional.empty(),
        false,
        place,
        MarginSetting.UNSET,
        false,
        Asks.NOTHING,
        ZoneOffset.UTC,
        uses);
  }

  private static WhoCould.Candidate somebody() {
    Commitments nothing =
        new Commitments(
            PersonId.of(1),
            ZoneOffset.UTC,
            Hours.UNSAID,
            List.of(),
            List.of(),
            List.of(),
            Eligibility.PLAIN);
    return new WhoCould.Candidate(
        nothing,
        "Somebody",
        false,
        List.of(),
        List.of(),
        Duration.ZERO,
        Optional.empty(),
        WhoCould.Ties.NONE);
  }

  @Test
  public void eachPlaceAndThingHasItsOwnRoom() {
    SplittableRandom seeds = new SplittableRandom(2032);
    int full = 0;
    int inUse = 0;
    for (int crew = 0; crew < CREWS; crew++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      Map<PlaceId, Bounds.Room> rooms = new HashMap<>();
      for (int p = 1; p <= PLACES; p++) {
        PlaceId place = PlaceId.of(p);
        List<Clashes.Stay> stays = new ArrayList<>();
        for (int s = random.nextInt(4); s > 0; s--) {
          stays.add(new Clashes.Stay("stay " + s, span(random), people(random), false));
        }
        if (random.nextInt(4) > 0) {
          rooms.put(
              place,
              new Bounds.Room(
                  new Clashes.Capacity(place, 1 + random.nextInt(3), random.nextBoolean()), stays));
        }
      }
      Work trial = work(random);
      Map<String, Integer> expected = new TreeMap<>();
      for (PlaceId place : new HashSet<>(trial.rooms())) {
        over(rooms.get(place), trial)
            .forEach((key, value) -> expected.merge(key, value, Integer::sum));
      }
      Bounds bounds = new Bounds(Limits.usual(), Travel.UNKNOWN, rooms);
      Map<String, Integer> said = new TreeMap<>();
      WhoCould.of(trial, List.of(somebody()), bounds).get(0).reasons().stream()
          .filter(one -> one.why() == WhoCould.Why.CAPACITY)
          .forEach(one -> said.merge(one.span().toString(), 1, Integer::sum));
      assertThat(said).as("seed %d", seed).isEqualTo(expected);
      full += said.isEmpty() ? 0 : 1;
      inUse += trial.uses().isEmpty() || said.isEmpty() ? 0 : 1;
    }
    assertThat(full).as("trials that met a full place").isGreaterThan(CREWS / 8);
    assertThat(inUse).as("of work that uses something").isGreaterThan(CREWS / 16);
  }

  /** Runs of quarters in which there is more than it holds and the trial is among it. */
  private static Map<String, Integer> over(Bounds.Room room, Work trial) {
    Map<String, Integer> found = new TreeMap<>();
    if (room == null) {
      return found;
    }
    int from = -1;
    boolean with = false;
    for (int quarter = 0; quarter <= QUARTERS; quarter++) {
      Instant now = at(quarter);
      Set<Object> here = new HashSet<>();
      for (Clashes.Stay one : room.stays()) {
        if (contains(one.span(), now)) {
          here.addAll(room.capacity().ofPeople() ? one.people() : Set.of(one.id()));
        }
      }
      boolean tried = contains(trial.span(), now);
      if (tried) {
        here.add(room.capacity().ofPeople() ? PersonId.of(1) : trial.id());
      }
      boolean over = here.size() > room.capacity().most();
      if (over && from < 0) {
        from = quarter;
        with = false;
      }
      with |= over && tried;
      if (!over && from >= 0) {
        if (with) {
          found.merge(TimeSpan.of(at(from), at(quarter)).toString(), 1, Integer::sum);
        }
        from = -1;
      }
    }
    return found;
  }

  private static boolean contains(TimeSpan span, Instant at) {
    return !at.isBefore(span.start()) && at.isBefore(span.end());
  }

  @Test
  public void whatIsGivenTakesRoomOfAllThatItUses() {
    PlaceId lock = PlaceId.of(1);
    PlaceId barge = PlaceId.of(2);
    Work work =
        new Work(
            "given",
            TimeSpan.of(at(8), at(16)),
            Optional.empty(),
            false,
            Optional.of(lock),
            MarginSetting.UNSET,
            false,
            Asks.NOTHING,
            ZoneOffset.UTC,
            List.of(barge));
    Map<PlaceId, Bounds.Room> empty =
        Map.of(barge, new Bounds.Room(new Clashes.Capacity(barge, 1, false), List.of()));
    Bounds after = new Bounds(Limits.usual(), Travel.UNKNOWN, empty).and(work, PersonId.of(1));
    Work other = work.called("other").at(TimeSpan.of(at(12), at(20)));
    assertThat(after.tooMuch(other, Set.of()))
        .singleElement()
        .satisfies(
            one -> {
              assertThat(one.place()).contains(barge);
              assertThat(one.span()).isEqualTo(TimeSpan.of(at(12), at(16)));
            });
  }
}
