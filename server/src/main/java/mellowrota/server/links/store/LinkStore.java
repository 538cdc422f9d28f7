package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import java.net.URI;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Family;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.links.Vault;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Locks;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Links and the calendars behind them, as they are kept. */
@Repository
@RequiredArgsConstructor
public class LinkStore {

  private static final String OF_A_LINK = "select o.id from OutletEntity o where o.link = :link";

  private final EntityManager kept;
  private final HouseStore house;
  private final CalendarStore calendars;
  private final Locks locks;
  private final Vault vault;
  private final Clock clock;

  /**
   * A link.
   *
   * @param person whose it is; empty: the house's
   * @param ends whether it is being ended
   * @param stopped since when it is left alone, by whoever's it is
   */
  public record Link(
      long id,
      Optional<PersonId> person,
      String address,
      URI home,
      String account,
      Vault.Sealed sealed,
      PersonId madeBy,
      Instant madeAt,
      boolean ends,
      Optional<String> fault,
      Optional<String> faultWords,
      Optional<Instant> faultSince,
      Optional<Instant> restUntil,
      Optional<Instant> stopped) {}

  /**
   * One of the account's calendars.
   *
   * @param rendering what is written there; empty: nothing is
   * @param withdrawn nothing is written there any more, and what was is taken off
   * @param families which entries it takes
   * @param overruled nothing is to stand there, by the word of whoever decides
   */
  public record Outlet(
      long id,
      long link,
      URI href,
      String name,
      Optional<Boolean> mayWrite,
      Optional<RenderingId> rendering,
      Optional<CalendarId> calendar,
      boolean withdrawn,
      Set<Family> families,
      Optional<LocalDate> from,
      String alsoRead,
      boolean readsBusy,
      Optional<String> token,
      Optional<String> ctag,
      Optional<Instant> readAt,
      long seenNo,
      boolean overruled) {

    public boolean takes(Family family) {
      return families.isEmpty() || families.contains(family);
    }
  }

  private static Link link(LinkEntity one) {
    return new Link(
        one.id,
        Optional.ofNullable(one.person).map(PersonId::of),
        one.address,
        URI.create(one.home),
        one.account,
        new Vault.Sealed(one.sealed, one.keyId),
        PersonId.of(one.madeBy),
        one.madeAt,
        one.endsAt != null,
        Optional.ofNullable(one.fault),
        Optional.ofNullable(one.faultWords),
        Optional.ofNullable(one.faultSince),
        Optional.ofNullable(one.restUntil),
        Optional.ofNullable(one.stoppedAt));
  }

  private static Outlet outlet(OutletEntity one, Optional<CalendarStore.Shown> shown) {
    return new Outlet(
        one.id,
        one.link,
        URI.create(one.href),
        one.name,
        Optional.ofNullable(one.mayWrite),
        Optional.ofNullable(one.rendering).map(RenderingId::of),
        shown.map(CalendarStore.Shown::calendar),
        shown.map(CalendarStore.Shown::withdrawn).orElse(true),
        families(one.families),
        Optional.ofNullable(one.fromDay),
        one.alsoRead,
        one.readsBusy,
        Optional.ofNullable(one.syncToken),
        Optional.ofNullable(one.ctag),
        Optional.ofNullable(one.readAt),
        one.seenNo,
        one.overruled);
  }

  private static Set<Family> families(String list) {
    return Arrays.stream(list.split(","))
        .filter(name -> !name.isBlank())
        .map(Family::valueOf)
        .collect(Collectors.toSet());
  }

  /** All that are not ended. */
  public List<Link> all() {
    return kept
        .createQuery("from LinkEntity where endedAt is null order by id", LinkEntity.class)
        .getResultList()
        .stream()
        .map(LinkStore::link)
        .toList();
  }

  public Optional<Link> find(long id) {
    return kept
        .createQuery("from LinkEntity where id = :id and endedAt is null", LinkEntity.class)
        .setParameter("id", id)
        .getResultList()
        .stream()
        .findFirst()
        .map(LinkStore::link);
  }

  /** As it is by now, whatever this transaction saw of it before. */
  private Optional<LinkEntity> entity(long id) {
    Optional<LinkEntity> found = Optional.ofNullable(kept.find(LinkEntity.class, id));
    found.ifPresent(kept::refresh);
    return found;
  }

  /** Those that are being ended. */
  public List<Long> ending() {
    return kept.createQuery(
            "select id from LinkEntity where endsAt is not null and endedAt is null", Long.class)
        .getResultList();
  }

  /**
   * Where somebody's own calendar is written.
   *
   * @param open whether not all has gone out that should, or it was not read yet
   */
  public record Own(
      long person, long outlet, boolean ofTheHouse, boolean overruled, boolean open) {}

  /** By links that are not being ended, by person. */
  public List<Own> own() {
    return kept.createQuery(
            """
            select c.person, o.id, k.person is null, o.overruled,
              o.readAt is null or c.changeNo > o.seenNo or exists (
                select 1 from CopyEntity p where p.outlet = o.id and p.dueAt is not null)
            from OutletEntity o join LinkEntity k on k.id = o.link
              join RenderingEntity r on r.id = o.rendering
              join CalendarEntity c on c.id = r.calendar
            where k.endedAt is null and k.endsAt is null and r.way = COPY and c.person is not null
            order by c.person, o.id
            """,
            Own.class)
        .getResultList();
  }

  public List<Outlet> outlets(long link) {
    return outlets("link = :of", link);
  }

  public List<Outlet> outlets(Set<Long> ids) {
    return outlets("holds(:of, id)", ids.toArray(Long[]::new));
  }

  public Optional<Outlet> outlet(long id) {
    return outlets("id = :of", id).stream().findFirst();
  }

  private List<Outlet> outlets(String which, Object of) {
    List<OutletEntity> found =
        kept.createQuery("from OutletEntity where " + which + " order by id", OutletEntity.class)
            .setParameter("of", of)
            .getResultList();
    Map<RenderingId, CalendarStore.Shown> shown =
        calendars.shown(
            found.stream()
                .filter(one -> one.rendering != null)
                .map(one -> RenderingId.of(one.rendering))
                .toList());
    return found.stream()
        .map(
            one ->
                outlet(
                    one,
                    Optional.ofNullable(one.rendering).map(id -> shown.get(RenderingId.of(id)))))
        .toList();
  }

  /** What the link's password belongs to. */
  public static String owned(String account, URI home) {
    return account + "\n" + home;
  }

  public Host.Account account(Link link) throws OutsideFault {
    try {
      return new Host.Account(
          link.home(),
          link.account(),
          vault.open(link.sealed(), owned(link.account(), link.home())));
    } catch (Vault.Unopenable gone) {
      throw OutsideFault.passwordGone();
    }
  }

  /** Seals the password with the newest key, so that an old one can be thrown away some day. */
  @Transactional
  public void sealAnew(Link link, String password) {
    if (vault.isOld(link.sealed())) {
      entity(link.id())
          .filter(one -> one.keyId.equals(link.sealed().key()))
          .ifPresent(one -> seal(one, vault.seal(password, owned(link.account(), link.home()))));
    }
  }

  private static void seal(LinkEntity entity, Vault.Sealed sealed) {
    entity.sealed = sealed.octets();
    entity.keyId = sealed.key();
  }

  /** Keeps a new link. */
  public long add(
      Optional<PersonId> person, Host.Account account, URI home, PersonId madeBy, Instant at) {
    LinkEntity entity = new LinkEntity();
    entity.person = person.map(PersonId::value).orElse(null);
    entity.address = account.address().toString();
    entity.home = home.toString();
    entity.account = account.user();
    seal(entity, vault.seal(account.password(), owned(account.user(), home)));
    entity.madeBy = madeBy.value();
    entity.madeAt = at;
    kept.persist(entity);
    return entity.id;
  }

  /** Has another password; whatever ailed it may be over. */
  public void setPassword(Link link, String password) {
    LinkEntity entity = entity(link.id()).orElseThrow();
    seal(entity, vault.seal(password, owned(link.account(), link.home())));
    entity.restUntil = null;
    entity.faults = 0;
  }

  /** Is left alone by its owner, from now on or no longer. */
  public void setStopped(long id, Optional<Instant> since) {
    LinkEntity entity = entity(id).orElseThrow();
    if (since.isEmpty() || entity.stoppedAt == null) {
      entity.stoppedAt = since.orElse(null);
    }
  }

  /** Begins to end it: nothing more is read, and what stands there goes first. */
  public void end(long id, Instant at) {
    LinkEntity entity = entity(id).orElseThrow();
    entity.endsAt = entity.endsAt == null ? at : entity.endsAt;
    entity.stoppedAt = null;
    // The link's row before its calendars', as everybody locks them.
    kept.flush();
    kept.createQuery("delete from BusyEntity b where b.outlet in (" + OF_A_LINK + ")")
        .setParameter("link", id)
        .executeUpdate();
    kept.createQuery("update OutletEntity set readsBusy = false where link = :link")
        .setParameter("link", id)
        .executeUpdate();
  }

  /** It is ended; its password goes with it, and its calendars are free for others. */
  public void ended(long id, Instant at) {
    LinkEntity entity = entity(id).orElseThrow();
    entity.endedAt = at;
    entity.sealed = new byte[0];
    kept.flush();
    kept.createQuery("update OutletEntity set open = false where link = :link")
        .setParameter("link", id)
        .executeUpdate();
  }

  /** Reads what is there now, and rests no longer. */
  public void again(long id) {
    // The link's row first, so that whoever has its turn is not in the middle of its copies.
    LinkEntity entity = locks.row(LinkEntity.class, id);
    entity.restUntil = null;
    kept.flush();
    kept.createQuery(
            """
            update OutletEntity set readDue = :now
            where link = :link and (rendering is not null or readsBusy = true)
            """)
        .setParameter("now", clock.instant())
        .setParameter("link", id)
        .executeUpdate();
  }

  // ---- Calendars behind links
  // --------------------------------------------------------------------

  /** Which calendars outside are linked, but for one link's. */
  public List<URI> linked(Optional<Long> but) {
    return kept
        .createQuery(
            "select href from OutletEntity where open = true and link <> :but", String.class)
        .setParameter("but", but.orElse(0L))
        .getResultList()
        .stream()
        .map(URI::create)
        .toList();
  }

  /**
   * What is wanted of a calendar of the account.
   *
   * @param place its address in one spelling
   * @param used whether it is ours from now on
   */
  public record Wanted(
      URI href,
      String place,
      Optional<String> resource,
      boolean used,
      String name,
      Optional<Boolean> mayWrite,
      Set<Family> families,
      Optional<LocalDate> from,
      String alsoRead,
      boolean readsBusy) {}

  /**
   * Keeps a new one.
   *
   * @throws org.springframework.dao.DataIntegrityViolationException where it is linked already
   */
  public void addOutlet(long link, Wanted wanted, Optional<RenderingId> rendering) {
    OutletEntity entity = new OutletEntity();
    entity.link = link;
    entity.href = wanted.href().toString();
    entity.name = wanted.name();
    entity.mayWrite = wanted.mayWrite().orElse(null);
    entity.rendering = rendering.map(RenderingId::value).orElse(null);
    become(entity, wanted);
    entity.readDue = wanted.used() ? clock.instant() : null;
    kept.persist(entity);
    kept.flush();
  }

  private static void become(OutletEntity entity, Wanted wanted) {
    entity.place = wanted.place();
    entity.resource = wanted.resource().orElse(null);
    entity.open |= wanted.used();
    entity.families =
        wanted.families().stream().sorted().map(Enum::name).collect(Collectors.joining(","));
    entity.fromDay = wanted.from().orElse(null);
    entity.alsoRead = wanted.alsoRead();
    entity.readsBusy = wanted.readsBusy();
  }

  /**
   * Wants something else of one; what it takes is opened anew, and what it reads read afresh.
   *
   * @throws org.springframework.dao.DataIntegrityViolationException where it is linked already
   */
  public void setOutlet(long id, Wanted wanted) {
    OutletEntity entity = locks.row(OutletEntity.class, id);
    String families = entity.families;
    LocalDate from = entity.fromDay;
    boolean read = entity.readsBusy;
    become(entity, wanted);
    if (!families.equals(entity.families) || !Objects.equals(from, entity.fromDay)) {
      entity.seenNo = 0;
    }
    if (read != entity.readsBusy) {
      entity.syncToken = null;
      entity.ctag = null;
    }
    boolean reads = entity.readsBusy || entity.rendering != null;
    entity.readDue = reads ? clock.instant() : null;
    kept.flush();
    if (!entity.readsBusy) {
      kept.createQuery("delete from BusyEntity where outlet = :outlet")
          .setParameter("outlet", id)
          .executeUpdate();
    }
  }

  /** Is written a calendar of ours. */
  public void setRendering(long outlet, RenderingId rendering) {
    kept.find(OutletEntity.class, outlet).rendering = rendering.value();
  }

  /** Nothing is to stand there, by the word of whoever decides, or it is again. */
  public void overrule(long outlet, boolean overruled) {
    kept.createQuery(
            "update OutletEntity set overruled = :overruled, seenNo = 0 where id = :outlet")
        .setParameter("overruled", overruled)
        .setParameter("outlet", outlet)
        .executeUpdate();
  }

  /** A calendar that is to be read, and when that was found. */
  public record Due(Outlet outlet, Instant found) {}

  /** The one of a link's that is to be read first, if one is by now. */
  public Optional<Due> due(long link) {
    Instant now = clock.instant();
    return kept
        .createQuery(
            "select id from OutletEntity where link = :link and readDue <= :now order by readDue",
            Long.class)
        .setParameter("link", link)
        .setParameter("now", now)
        .setMaxResults(1)
        .getResultList()
        .stream()
        .findFirst()
        .map(id -> new Due(outlet(id).orElseThrow(), now));
  }

  /** It was read; the next time is told by the house, but for who asked since it was found due. */
  public void read(Due due, Optional<String> token, Optional<String> ctag) {
    OutletEntity entity = locks.row(OutletEntity.class, due.outlet().id());
    Instant now = clock.instant();
    entity.syncToken = token.orElse(null);
    entity.ctag = ctag.orElse(null);
    entity.readAt = now;
    // Who asked for a reading since may have seen what came too late for this one.
    if (entity.readDue == null || !entity.readDue.isAfter(due.found())) {
      entity.readDue = now.plusSeconds(house.copying().readingInterval());
    }
  }

  /** All are read afresh. */
  public void readAllAfresh() {
    kept.createQuery("update OutletEntity set syncToken = null, ctag = null").executeUpdate();
  }
}
