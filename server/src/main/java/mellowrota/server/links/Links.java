package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.net.URI;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Family;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Leaving;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.Origin;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Makes, changes and ends links. Each is an act that changes the world: a calendar that is written
 * to is one more way of reading ours.
 */
@Service
@RequiredArgsConstructor
public class Links implements Leaving {

  private static final int MOST_OF_A_PERSON = 10;

  private final LinkStore store;
  private final CopyStore copies;
  private final CalendarStore calendars;
  private final Persons persons;
  private final Acts acts;
  private final Worlds worlds;
  private final Host host;
  private final Clock clock;
  private final Deciders deciders;
  private final TransactionTemplate transaction;

  /**
   * What is wanted of one of the account's calendars.
   *
   * @param writes which of our calendars is written there; empty: none
   * @param alsoRead UNSAID, NOBODY, OTHERS, or people's numbers
   * @param from work that ended before this day is not sent
   */
  record Wanted(
      URI href,
      String name,
      Optional<Boolean> mayWrite,
      Optional<String> resource,
      Optional<CalendarId> writes,
      Set<Family> families,
      Optional<LocalDate> from,
      String alsoRead,
      boolean readsBusy) {

    /** Who reads it there beside its owner. */
    Rendering.Way.Copy copy() {
      return switch (alsoRead) {
        case "UNSAID", "OTHERS" -> new Rendering.Way.Copy(Set.of(), true);
        case "NOBODY" -> new Rendering.Way.Copy(Set.of(), false);
        default ->
            new Rendering.Way.Copy(
                Arrays.stream(alsoRead.split(","))
                    .map(id -> PersonId.of(Long.parseLong(id)))
                    .collect(Collectors.toSet()),
                false);
      };
    }

    LinkStore.Wanted kept() {
      return new LinkStore.Wanted(
          href,
          Origin.place(href),
          resource,
          isUsed(),
          name,
          mayWrite,
          families,
          from,
          alsoRead,
          readsBusy);
    }

    /** Whether the calendar is used at all. */
    boolean isUsed() {
      return writes.isPresent() || readsBusy;
    }
  }

  /** Those a person may know of: their own, and the house's if they are a coordinator. */
  List<LinkStore.Link> of(Person asker) {
    return store.all().stream().filter(link -> mayKnow(asker, link)).toList();
  }

  private static boolean mayKnow(Person asker, LinkStore.Link link) {
    return link.person().isPresent()
        ? link.person().get().equals(asker.id())
        : asker.isCoordinator();
  }

  LinkStore.Link mine(Person asker, long id) {
    return store.find(id).filter(link -> mayKnow(asker, link)).orElseThrow(Problem::notFound);
  }

  /**
   * Links somebody's own calendar to the first of an account's, and reads busy time from the
   * others.
   */
  public void linkOwn(PersonId person, String address, String user, String password)
      throws OutsideFault {
    Host.Account account = new Host.Account(host.begin(address), user, password);
    Host.Discovered found = host.discover(account);
    CalendarId own = worlds.now().calendars().own(person).orElseThrow().id();
    List<Wanted> wanted = new ArrayList<>();
    for (Host.Found one : found.calendars()) {
      boolean first = wanted.isEmpty();
      wanted.add(
          new Wanted(
              one.href(),
              one.name(),
              one.mayWrite(),
              one.resource(),
              first ? Optional.of(own) : Optional.empty(),
              Set.of(),
              Optional.of(worlds.now().day()),
              "NOBODY",
              !first));
    }
    add(person, Optional.empty(), false, account, found.home(), wanted);
  }

  private void requireFewerThanMost(Person person) {
    if (of(person).stream().filter(one -> one.person().isPresent()).count() >= MOST_OF_A_PERSON) {
      throw Problem.of(429, "too-many-links", say("links.unlink-some-of-your"));
    }
  }

  /** Links an account that was tried. */
  long add(
      PersonId asker,
      Optional<String> key,
      boolean ofTheHouse,
      Host.Account account,
      URI home,
      List<Wanted> wanted) {
    requireNoOtherSpelling(wanted, Optional.empty());
    Acts.Wanted act =
        Acts.Wanted.by(asker, "link.add", key, account.user() + "\n" + home).changingTheWorld();
    return Long.parseLong(
        acts.run(
                act,
                doing -> {
                  Person person = worlds.now().person(asker);
                  if (ofTheHouse && !person.isCoordinator()) {
                    throw Problem.forbidden(say("links.only-coordinators-can-link"));
                  }
                  requireFewerThanMost(person);
                  long link = insert(doing, ofTheHouse, account, home);
                  wanted.forEach(one -> insert(person, ofTheHouse, link, one));
                  return Long.toString(link);
                })
            .answer());
  }

  private long insert(Act act, boolean ofTheHouse, Host.Account account, URI home) {
    return store.add(
        ofTheHouse ? Optional.empty() : Optional.of(act.actor()),
        account,
        home,
        act.actor(),
        act.at());
  }

  /**
   * One calendar outside is one thing, whoever links it and however its address is spelt: two links
   * to it would each take the other's entries for changes made there. By whom is not told.
   */
  private static Problem linkedAlready() {
    return Problem.of(409, "linked-already", say("links.this-calendar-is-already"));
  }

  /** Asks the names, so it is done before the act; keys of the database see to the rest. */
  private void requireNoOtherSpelling(List<Wanted> wanted, Optional<Long> but) {
    List<URI> open = store.linked(but);
    for (Wanted one : wanted) {
      if (one.isUsed() && open.stream().anyMatch(other -> isSpeltOtherwise(one.href(), other))) {
        throw linkedAlready();
      }
    }
  }

  private boolean isSpeltOtherwise(URI one, URI other) {
    return Origin.pathAndPort(one).equals(Origin.pathAndPort(other))
        && host.meansTheSame(one, other);
  }

  private static void once(Runnable written) {
    try {
      written.run();
    } catch (DataIntegrityViolationException twice) {
      throw linkedAlready();
    }
  }

  private void insert(Person person, boolean ofTheHouse, long link, Wanted one) {
    Optional<RenderingId> rendering =
        one.writes().map(calendar -> rendering(person, ofTheHouse, calendar, one));
    once(() -> store.addOutlet(link, one.kept(), rendering));
  }

  private RenderingId rendering(
      Person person, boolean ofTheHouse, CalendarId calendar, Wanted wanted) {
    World world = worlds.now();
    boolean own =
        world.calendars().own(person.id()).filter(one -> one.id().equals(calendar)).isPresent();
    if (!ofTheHouse && deciders.isLocked()) {
      throw Problem.forbidden(say("links.the-organisation-decides-where"));
    }
    if (!ofTheHouse && !own) {
      throw Problem.forbidden(say("links.you-can-copy-only"));
    }
    if (world.calendars().find(calendar).isEmpty()) {
      throw Problem.fault("/calendars", say("links.names-a-calendar-that"));
    }
    return calendars.let(calendar, wanted.copy(), Optional.empty());
  }

  /**
   * Changes what is written to and read from the account's calendars, and its password; empty:
   * these stay. What is written there no longer is taken off.
   */
  void change(PersonId asker, long id, String password, List<Wanted> wanted) {
    if (!password.isEmpty()) {
      setPassword(asker, id, password);
    }
    if (!wanted.isEmpty()) {
      change(asker, id, wanted);
    }
  }

  private void change(PersonId asker, long id, List<Wanted> wanted) {
    requireNoOtherSpelling(wanted, Optional.of(id));
    acts.run(
        Acts.Wanted.by(asker, "link.change", Optional.empty(), "").changingTheWorld(),
        act -> {
          Person person = worlds.now().person(asker);
          LinkStore.Link link = mine(person, id);
          for (Wanted one : wanted) {
            change(person, link, one);
          }
          return "";
        });
  }

  private void change(Person person, LinkStore.Link link, Wanted one) {
    Optional<LinkStore.Outlet> known =
        store.outlets(link.id()).stream()
            .filter(outlet -> outlet.href().equals(one.href()))
            .findFirst();
    if (known.isEmpty()) {
      insert(person, link.person().isEmpty(), link.id(), one);
      return;
    }
    LinkStore.Outlet outlet = known.get();
    Optional<CalendarId> writes = outlet.withdrawn() ? Optional.empty() : outlet.calendar();
    if (writes.isPresent() && one.writes().isPresent() && !writes.equals(one.writes())) {
      throw Problem.fault("/calendars", say("links.already-receives-another-calendar"));
    }
    if (writes.isPresent() && one.writes().isEmpty()) {
      withdraw(outlet);
    } else if (writes.isEmpty() && one.writes().isPresent()) {
      again(person, link, outlet, one);
    }
    outlet.rendering().ifPresent(rendering -> calendars.alsoRead(rendering, one.copy()));
    once(() -> store.setOutlet(outlet.id(), one.kept()));
    copies.openAnew(outlet.id());
  }

  private void again(Person person, LinkStore.Link link, LinkStore.Outlet outlet, Wanted wanted) {
    CalendarId calendar = wanted.writes().orElseThrow();
    if (outlet.calendar().filter(one -> !one.equals(calendar)).isPresent()) {
      throw Problem.fault("/calendars", say("links.received-another-calendar-before"));
    }
    if (outlet.rendering().isPresent()) {
      calendars.letAgain(outlet.rendering().get(), wanted.copy());
    } else {
      store.setRendering(outlet.id(), rendering(person, link.person().isEmpty(), calendar, wanted));
    }
  }

  private void withdraw(LinkStore.Outlet outlet) {
    outlet.rendering().ifPresent(calendars::withdraw);
  }

  /** Takes off what stands there, then forgets the account. */
  void end(PersonId asker, long id) {
    acts.run(
        Acts.Wanted.by(asker, "link.end", Optional.empty(), "").changingTheWorld(),
        act -> {
          end(act, mine(worlds.now().person(asker), id).id());
          return "";
        });
  }

  /** Their own; the house's links are the house's, whoever made them. */
  @Override
  public void end(Act act) {
    Set<PersonId> left = persons.left();
    store.all().stream()
        .filter(link -> !link.ends() && link.person().filter(left::contains).isPresent())
        .forEach(
            link -> {
              end(act, link.id());
              act.ends(Ended.of(Sort.LINK));
            });
  }

  private void end(Act act, long id) {
    store.outlets(id).forEach(this::withdraw);
    store.end(id, act.at());
  }

  /** Ends it at once, whatever still stands there: the account may be gone. */
  void leave(PersonId asker, long id) {
    acts.run(
        Acts.Wanted.by(asker, "link.leave", Optional.empty(), "").changingTheWorld(),
        act -> {
          end(act, mine(worlds.now().person(asker), id).id());
          copies.leave(id);
          store.ended(id, act.at());
          return "";
        });
  }

  /** Gives it another password; it is tried at once. */
  private void setPassword(PersonId asker, long id, String password) {
    change(
        asker,
        id,
        link -> {
          store.setPassword(link, password);
          readAndTryNow(id);
        });
  }

  /** Leaves it alone until its owner lets it go on; what stands there stays. */
  void stop(PersonId asker, long id) {
    change(asker, id, link -> store.setStopped(id, Optional.of(clock.instant())));
  }

  void goOn(PersonId asker, long id) {
    change(
        asker,
        id,
        link -> {
          store.setStopped(id, Optional.empty());
          readAndTryNow(id);
        });
  }

  /** Reads what is there now, and tries at once whatever waits for another try. */
  void again(PersonId asker, long id) {
    change(asker, id, link -> readAndTryNow(id));
  }

  private void readAndTryNow(long id) {
    store.again(id);
    copies.tryAgain(id);
  }

  private void change(PersonId asker, long id, Consumer<LinkStore.Link> how) {
    transaction.executeWithoutResult(status -> how.accept(mine(worlds.now().person(asker), id)));
  }
}
