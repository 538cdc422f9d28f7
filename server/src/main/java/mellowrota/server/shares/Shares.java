package mellowrota.server.shares;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Leaving;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.platform.Problem;
import mellowrota.server.shares.store.ShareStore;
import mellowrota.server.shares.store.ShareStore.Share;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;

/**
 * Offers, accepts, changes and withdraws shares. Each is an act that changes the world, so that
 * what a reader may no longer see goes in the same act (SIGHT 5).
 */
@Service
@RequiredArgsConstructor
class Shares implements Leaving {

  private final ShareStore store;
  private final Persons persons;
  private final Worlds worlds;
  private final Acts acts;

  /** What somebody wants of a share. */
  record Wanted(Level level, boolean mayPassOn, Optional<LocalDate> until) {

    private Share by(PersonId giver, CalendarId calendar, PersonId reader, Instant at) {
      return new Share(0, calendar, reader, giver, level, mayPassOn, until, at, false);
    }
  }

  /**
   * Those a person may know of: given by them, for them, or of their own calendar; all to office.
   */
  List<Share> of(World world, Person asker) {
    Optional<CalendarId> own = world.calendars().own(asker.id()).map(Calendar::id);
    return store.open().stream()
        .filter(
            share ->
                asker.isCoordinator()
                    || share.givenBy().equals(asker.id())
                    || share.reader().equals(asker.id())
                    || own.filter(share.calendar()::equals).isPresent())
        .toList();
  }

  /** What they gave, with all that was passed on from it, and what was given to them. */
  @Override
  public void end(Act act) {
    Set<PersonId> left = persons.left();
    store.open().stream()
        .filter(share -> left.contains(share.givenBy()) || left.contains(share.reader()))
        .forEach(share -> withdraw(act, share));
  }

  /** Offers a calendar to a reader; nothing is shown before they accept it. */
  long offer(PersonId asker, CalendarId calendar, PersonId reader, Wanted wanted) {
    return Long.parseLong(
        acts.run(
                Acts.Wanted.by(asker, "share.offer", Optional.empty(), "").changingTheWorld(),
                act -> {
                  World world = worlds.now();
                  Person person = world.person(asker);
                  Calendar of = world.calendars().find(calendar).orElseThrow(Problem::notFound);
                  requireMayGive(world, person, of, wanted);
                  requireNew(world, of, reader);
                  long id = store.add(wanted.by(asker, calendar, reader, act.at()));
                  if (act.isLook()) {
                    // Whoever gives it wants to see what it shows once it is accepted.
                    store.accept(id, act.at());
                  }
                  return Long.toString(id);
                })
            .answer());
  }

  private void requireMayGive(World world, Person person, Calendar calendar, Wanted wanted) {
    if (person.isCoordinator() || isOwner(person, calendar)) {
      return;
    }
    Share passable =
        of(world, person).stream()
            .filter(share -> share.calendar().equals(calendar.id()))
            .filter(share -> share.reader().equals(person.id()))
            .filter(share -> share.accepted() && share.mayPassOn())
            .findFirst()
            .orElseThrow(() -> Problem.forbidden(say("shares.you-can-share-your")));
    if (wanted.level().compareTo(passable.level()) > 0) {
      throw Problem.fault("/level", say("shares.is-more-than-you", passable.level()));
    }
    if (passable.until().isPresent()
        && wanted.until().filter(day -> !day.isAfter(passable.until().get())).isEmpty()) {
      throw Problem.fault("/until", say("shares.is-later-than-your", passable.until().get()));
    }
  }

  private static boolean isOwner(Person person, Calendar calendar) {
    return calendar.owner() instanceof Calendar.Owner.Own own && own.person().equals(person.id());
  }

  private void requireNew(World world, Calendar calendar, PersonId reader) {
    Optional<Person> person = world.crew().person(reader).filter(one -> !one.hasLeft());
    if (person.isEmpty()) {
      throw Problem.fault("/reader", say("common.is-not-a-person"));
    }
    boolean member =
        world.calendars().members(calendar).stream().anyMatch(one -> one.id().equals(reader));
    if (member) {
      throw Problem.fault("/reader", say("shares.already-reads-this-calendar"));
    }
    boolean again =
        store.open().stream()
            .anyMatch(one -> one.calendar().equals(calendar.id()) && one.reader().equals(reader));
    if (again) {
      throw Problem.fault("/reader", say("shares.already-has-a-share"));
    }
  }

  /** Accepts what was offered to the asker. */
  void accept(PersonId asker, long id) {
    change(
        asker,
        "share.accept",
        id,
        (share, act) -> {
          if (!share.reader().equals(asker)) {
            throw Problem.forbidden(say("shares.only-the-person-a"));
          }
          if (!share.accepted()) {
            store.accept(id, act.at());
          }
        });
  }

  /** Gives a share another level, end or mark. */
  void change(PersonId asker, long id, Wanted wanted) {
    change(
        asker,
        "share.change",
        id,
        (share, act) -> {
          requireGiver(asker, share);
          World world = worlds.now();
          Calendar calendar = world.calendars().find(share.calendar()).orElseThrow();
          requireMayGive(world, world.person(asker), calendar, wanted);
          write(id, wanted);
          passedOn(share).forEach(other -> follow(act, other, wanted));
        });
  }

  private void write(long id, Wanted wanted) {
    store.change(id, wanted.level(), wanted.mayPassOn(), wanted.until());
  }

  /** What was passed on never shows more, nor longer, than what it came from. */
  private void follow(Act act, Share share, Wanted from) {
    if (!from.mayPassOn()) {
      withdraw(act, share);
      return;
    }
    Optional<LocalDate> until =
        Stream.concat(share.until().stream(), from.until().stream()).min(Comparator.naturalOrder());
    Wanted wanted = new Wanted(share.level().atMost(from.level()), share.mayPassOn(), until);
    write(share.id(), wanted);
    passedOn(share).forEach(other -> follow(act, other, wanted));
  }

  /** What its reader passed on of it; who may share the calendar anyway passes nothing on. */
  private List<Share> passedOn(Share share) {
    World world = worlds.now();
    Person reader = world.crew().person(share.reader()).orElseThrow();
    Calendar calendar = world.calendars().find(share.calendar()).orElseThrow();
    if (reader.isCoordinator() || isOwner(reader, calendar)) {
      return List.of();
    }
    return of(world, reader).stream()
        .filter(other -> other.givenBy().equals(share.reader()))
        .filter(other -> other.calendar().equals(share.calendar()))
        .toList();
  }

  /** Withdraws a share, by whoever gave it or reads by it; those passed on from it go with it. */
  void withdraw(PersonId asker, long id) {
    change(
        asker,
        "share.withdraw",
        id,
        (share, act) -> {
          if (!share.reader().equals(asker)) {
            requireGiver(asker, share);
          }
          withdraw(act, share);
        });
  }

  private void withdraw(Act act, Share share) {
    if (!store.withdraw(share.id(), act.at())) {
      return;
    }
    act.ends(
        new Ended(
            Sort.SHARE,
            "",
            Optional.of(share.calendar()),
            Optional.of(share.reader()),
            Optional.of(share.level()),
            share.until()));
    passedOn(share).forEach(other -> withdraw(act, other));
  }

  private void requireGiver(PersonId asker, Share share) {
    World world = worlds.now();
    Person person = world.person(asker);
    Calendar calendar = world.calendars().find(share.calendar()).orElseThrow();
    if (!person.isCoordinator() && !share.givenBy().equals(asker) && !isOwner(person, calendar)) {
      throw Problem.forbidden(say("shares.only-the-person-who"));
    }
  }

  private interface Step {
    void take(Share share, Act act);
  }

  private void change(PersonId asker, String kind, long id, Step step) {
    acts.run(
        Acts.Wanted.by(asker, kind, Optional.empty(), "").changingTheWorld(),
        act -> {
          World world = worlds.now();
          Share share =
              of(world, world.person(asker)).stream()
                  .filter(one -> one.id() == id)
                  .findFirst()
                  .orElseThrow(Problem::notFound);
          step.take(share, act);
          return "";
        });
  }
}
