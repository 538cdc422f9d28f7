package mellowrota.server.links;

import java.net.URI;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Family;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Leaving;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.Origin;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Makes, changes and ends links. Each is an act that changes the world: a calendar that is written
 * to is one more way of reading ours.
 */
@Service
public class Links implements Leaving {

  private static final int MOST_OF_A_PERSON = 10;

  private final LinkStore store;
  private final CopyStore copies;
  private final Vault vault;
  private final Acts acts;
  private final Worlds worlds;
  private final Host host;
  private final JdbcClient jdbc;
  private final Clock clock;
  private final Deciders deciders;

  Links(
      LinkStore store,
      CopyStore copies,
      Vault vault,
      Acts acts,
      Worlds worlds,
      Host host,
      Deciders deciders,
      JdbcClient jdbc,
      Clock clock) {
    this.clock = clock;
    this.deciders = deciders;
    this.host = host;
    this.store = store;
    this.copies = copies;
    this.vault = vault;
    this.acts = acts;
    this.worlds = worlds;
    this.jdbc = jdbc;
  }

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
                    throw Problem.forbidden("The house's calendars are linked by coordinators.");
                  }
                  if (of(person).stream().filter(one -> one.person().isPresent()).count()
                      >= MOST_OF_A_PERSON) {
                    throw Problem.of(429, "too-many-links", "End some of your other links first.");
                  }
                  long link = insert(doing, ofTheHouse, account, home);
                  wanted.forEach(one -> insert(person, ofTheHouse, link, one));
                  return Long.toString(link);
                })
            .answer());
  }

  private long insert(Act act, boolean ofTheHouse, Host.Account account, URI home) {
    Vault.Sealed sealed = vault.seal(account.password(), LinkStore.owned(account.user(), home));
    return jdbc.sql(
            """
            insert into link (person, address, home, account, sealed, key_id, made_by, made_at)
            values (?, ?, ?, ?, ?, ?, ?, ?) returning id
            """)
        .param(ofTheHouse ? null : act.actor().value())
        .param(account.address().toString())
        .param(home.toString())
        .param(account.user())
        .param(sealed.octets())
        .param(sealed.key())
        .param(act.actor().value())
        .param(act.at().atOffset(ZoneOffset.UTC))
        .query(Long.class)
        .single();
  }

  /**
   * One calendar outside is one thing, whoever links it and however its address is spelt: two links
   * to it would each take the other's entries for changes made there. By whom is not told.
   */
  private static Problem linkedAlready() {
    return Problem.of(
        409,
        "linked-already",
        "This calendar is linked already. Choose another one, or end the other link first.");
  }

  /** Asks the names, so it is done before the act; keys of the database see to the rest. */
  private void requireNoOtherSpelling(List<Wanted> wanted, Optional<Long> but) {
    List<URI> open =
        jdbc.sql("select href from link_calendar where open and link <> ?")
            .param(but.orElse(0L))
            .query((row, n) -> URI.create(row.getString(1)))
            .list();
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

  private static <T> T once(Supplier<T> written) {
    try {
      return written.get();
    } catch (DuplicateKeyException twice) {
      throw linkedAlready();
    }
  }

  private void insert(Person person, boolean ofTheHouse, long link, Wanted one) {
    Optional<Long> rendering =
        one.writes().map(calendar -> rendering(person, ofTheHouse, calendar));
    once(
        jdbc.sql(
                    """
                    insert into link_calendar (link, href, place, resource, open, name, may_write,
                      rendering, families, from_day, also_read, reads_busy, read_due)
                    values (:link, :href, :place, :resource, :used, :name, :mayWrite,
                      :rendering, :families, :from, :also, :busy, case when :used then now() end)
                    """)
                .param("link", link)
                .param("href", one.href().toString())
                .param("place", Origin.place(one.href()))
                .param("resource", one.resource().orElse(null))
                .param("used", one.isUsed())
                .param("name", one.name())
                .param("mayWrite", one.mayWrite().orElse(null))
                .param("rendering", rendering.orElse(null))
                .param("families", names(one.families()))
                .param("from", one.from().orElse(null))
                .param("also", one.alsoRead())
                .param("busy", one.readsBusy())
            ::update);
  }

  private static String names(Set<Family> families) {
    return new TreeSet<>(families).stream().map(Enum::name).collect(Collectors.joining(","));
  }

  private long rendering(Person person, boolean ofTheHouse, CalendarId calendar) {
    World world = worlds.now();
    boolean own =
        world.calendars().own(person.id()).filter(one -> one.id().equals(calendar)).isPresent();
    if (!ofTheHouse && deciders.isLocked()) {
      throw Problem.forbidden(
          "Where people's work is copied is decided by the house; busy time can be read all the"
              + " same.");
    }
    if (!ofTheHouse && !own) {
      throw Problem.forbidden(
          "Into your own account goes your own calendar; others are the house's to link.");
    }
    if (world.calendars().find(calendar).isEmpty()) {
      throw Problem.fault("/calendars", "name a calendar of ours that is not there");
    }
    return jdbc.sql(
            "insert into rendering (calendar, way, level) values (?, 'COPY', 'ALL') returning id")
        .param(calendar.value())
        .query(Long.class)
        .single();
  }

  /**
   * Changes what is written to and read from the account's calendars. What is written there no
   * longer is taken off.
   */
  void change(PersonId asker, long id, List<Wanted> wanted) {
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
    once(
        jdbc.sql(
                    """
                    update link_calendar set open = open or :used, place = :place,
                      resource = :resource where id = :id
                    """)
                .param("used", one.isUsed())
                .param("place", Origin.place(one.href()))
                .param("resource", one.resource().orElse(null))
                .param("id", outlet.id())
            ::update);
    Optional<CalendarId> writes = outlet.withdrawn() ? Optional.empty() : outlet.calendar();
    if (writes.isPresent() && one.writes().isPresent() && !writes.equals(one.writes())) {
      throw Problem.fault(
          "/calendars", "is written another calendar of ours already; take that off first");
    }
    if (writes.isPresent() && one.writes().isEmpty()) {
      withdraw(outlet);
    } else if (writes.isEmpty() && one.writes().isPresent()) {
      again(person, link, outlet, one.writes().get());
    }
    jdbc.sql(
            """
            update link_calendar set families = :families, from_day = :from, also_read = :also,
              reads_busy = :busy,
              seen_no = case when families <> :families or from_day is distinct from :from::date
                then 0 else seen_no end,
              sync_token = case when reads_busy = :busy then sync_token end,
              ctag = case when reads_busy = :busy then ctag end,
              read_due = case when :busy or rendering is not null then now() end
            where id = :id
            """)
        .param("families", names(one.families()))
        .param("from", one.from().orElse(null))
        .param("also", one.alsoRead())
        .param("busy", one.readsBusy())
        .param("id", outlet.id())
        .update();
    copies.openAnew(outlet.id());
    if (!one.readsBusy()) {
      jdbc.sql("delete from busy where link_calendar = ?").param(outlet.id()).update();
    }
  }

  private void again(
      Person person, LinkStore.Link link, LinkStore.Outlet outlet, CalendarId calendar) {
    if (outlet.calendar().filter(one -> !one.equals(calendar)).isPresent()) {
      throw Problem.fault(
          "/calendars", "had another calendar of ours before; choose another of the account's");
    }
    if (outlet.rendering().isPresent()) {
      jdbc.sql("update rendering set way = 'COPY', access_no = access_no + 1 where id = ?")
          .param(outlet.rendering().get().value())
          .update();
    } else {
      jdbc.sql("update link_calendar set rendering = ? where id = ?")
          .param(rendering(person, link.person().isEmpty(), calendar))
          .param(outlet.id())
          .update();
    }
  }

  private void withdraw(LinkStore.Outlet outlet) {
    outlet
        .rendering()
        .ifPresent(
            rendering ->
                jdbc.sql("update rendering set way = 'WITHDRAWN' where id = ?")
                    .param(rendering.value())
                    .update());
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
    jdbc.sql(
            """
            select k.id from link k join person p on p.id = k.person
            where p.standing = 'LEFT' and k.ends_at is null order by k.id
            """)
        .query(Long.class)
        .list()
        .forEach(
            link -> {
              end(act, link);
              act.ends(Ended.of(Sort.LINK));
            });
  }

  private void end(Act act, long id) {
    store.outlets(id).forEach(this::withdraw);
    jdbc.sql(
            """
                  update link set ends_at = coalesce(ends_at, ?), stopped_at = null
                  where id = ?
                  """)
        .param(act.at().atOffset(ZoneOffset.UTC))
        .param(id)
        .update();
    jdbc.sql(
            """
                  delete from busy where link_calendar in (
                    select id from link_calendar where link = ?)
                  """)
        .param(id)
        .update();
    jdbc.sql("update link_calendar set reads_busy = false where link = ?").param(id).update();
  }

  /** Ends it at once, whatever still stands there: the account may be gone. */
  void leave(PersonId asker, long id) {
    acts.run(
        Acts.Wanted.by(asker, "link.leave", Optional.empty(), "").changingTheWorld(),
        act -> {
          end(act, mine(worlds.now().person(asker), id).id());
          jdbc.sql(
                  """
                  with left_there as (
                    update copy set due_at = null, open_since = null, state = 'OFF'
                    where link_calendar in (select id from link_calendar where link = :id)),
                  closed as (update link_calendar set open = false where link = :id)
                  update link set ended_at = :at, sealed = ''::bytea where id = :id
                  """)
              .param("id", id)
              .param("at", act.at().atOffset(ZoneOffset.UTC))
              .update();
          return "";
        });
  }

  /** Gives it another password; it is tried at once. */
  @Transactional
  void password(PersonId asker, long id, String password) {
    LinkStore.Link link = mine(worlds.now().person(asker), id);
    Vault.Sealed sealed = vault.seal(password, LinkStore.owned(link.account(), link.home()));
    jdbc.sql(
            """
            update link set sealed = ?, key_id = ?, rest_until = null, faults = 0 where id = ?
            """)
        .param(sealed.octets())
        .param(sealed.key())
        .param(id)
        .update();
    again(asker, id);
  }

  /** Leaves it alone until its owner lets it go on; what stands there stays. */
  @Transactional
  void stop(PersonId asker, long id) {
    mine(worlds.now().person(asker), id);
    jdbc.sql("update link set stopped_at = coalesce(stopped_at, ?) where id = ?")
        .param(clock.instant().atOffset(ZoneOffset.UTC))
        .param(id)
        .update();
  }

  @Transactional
  void goOn(PersonId asker, long id) {
    mine(worlds.now().person(asker), id);
    jdbc.sql("update link set stopped_at = null where id = ?").param(id).update();
    again(asker, id);
  }

  /** Reads what is there now, and tries at once whatever waits for another try. */
  @Transactional
  void again(PersonId asker, long id) {
    mine(worlds.now().person(asker), id);
    jdbc.sql("update link set rest_until = null where id = ?").param(id).update();
    jdbc.sql(
            """
            update link_calendar set read_due = now()
            where link = ? and (rendering is not null or reads_busy)
            """)
        .param(id)
        .update();
    jdbc.sql(
            """
            update copy set due_at = now() where due_at is not null and fault is not null
              and link_calendar in (select id from link_calendar where link = ?)
            """)
        .param(id)
        .update();
  }
}
