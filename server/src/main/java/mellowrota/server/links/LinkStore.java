package mellowrota.server.links;

import java.net.URI;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Family;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Links and the calendars behind them, as they are kept. Times of delivery are the database's. */
@Component
class LinkStore {

  private static final String COLUMNS =
      """
      select id, person, address, home, account, sealed, key_id, made_by, made_at, ends_at, fault,
        fault_words, fault_since, rest_until, stopped_at from link
      """;

  private static final String CALENDARS =
      """
      select lc.id, lc.link, lc.href, lc.name, lc.may_write, lc.rendering, r.calendar,
        r.way is null or r.way = 'WITHDRAWN', lc.families, lc.from_day, lc.also_read,
        lc.reads_busy, lc.sync_token, lc.ctag, lc.read_at, lc.seen_no, lc.overruled
      from link_calendar lc left join rendering r on r.id = lc.rendering
      """;

  private final HouseStore house;
  private final JdbcClient jdbc;
  private final Vault vault;

  LinkStore(HouseStore house, JdbcClient jdbc, Vault vault) {
    this.house = house;
    this.jdbc = jdbc;
    this.vault = vault;
  }

  /**
   * A link.
   *
   * @param person whose it is; empty: the house's
   * @param ends whether it is being ended
   * @param stopped since when it is left alone, by whoever's it is
   */
  record Link(
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
  record Outlet(
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

    boolean takes(Family family) {
      return families.isEmpty() || families.contains(family);
    }
  }

  private static Link link(ResultSet row, int n) throws SQLException {
    long person = row.getLong("person");
    return new Link(
        row.getLong("id"),
        person == 0 ? Optional.empty() : Optional.of(PersonId.of(person)),
        row.getString("address"),
        URI.create(row.getString("home")),
        row.getString("account"),
        new Vault.Sealed(row.getBytes("sealed"), row.getString("key_id")),
        PersonId.of(row.getLong("made_by")),
        moment(row, "made_at").orElseThrow(),
        moment(row, "ends_at").isPresent(),
        Optional.ofNullable(row.getString("fault")),
        Optional.ofNullable(row.getString("fault_words")),
        moment(row, "fault_since"),
        moment(row, "rest_until"),
        moment(row, "stopped_at"));
  }

  static Optional<Instant> moment(ResultSet row, String column) throws SQLException {
    return Optional.ofNullable(row.getObject(column, OffsetDateTime.class))
        .map(OffsetDateTime::toInstant);
  }

  private static Outlet outlet(ResultSet row, int n) throws SQLException {
    long rendering = row.getLong(6);
    long calendar = row.getLong(7);
    return new Outlet(
        row.getLong(1),
        row.getLong(2),
        URI.create(row.getString(3)),
        row.getString(4),
        Optional.ofNullable(row.getObject(5, Boolean.class)),
        rendering == 0 ? Optional.empty() : Optional.of(RenderingId.of(rendering)),
        calendar == 0 ? Optional.empty() : Optional.of(CalendarId.of(calendar)),
        row.getBoolean(8),
        families(row.getString(9)),
        Optional.ofNullable(row.getObject(10, LocalDate.class)),
        row.getString(11),
        row.getBoolean(12),
        Optional.ofNullable(row.getString(13)),
        Optional.ofNullable(row.getString(14)),
        Optional.ofNullable(row.getObject(15, OffsetDateTime.class)).map(OffsetDateTime::toInstant),
        row.getLong(16),
        row.getBoolean(17));
  }

  private static Set<Family> families(String list) {
    return Arrays.stream(list.split(","))
        .filter(name -> !name.isBlank())
        .map(Family::valueOf)
        .collect(Collectors.toSet());
  }

  /** All that are not ended. */
  List<Link> all() {
    return jdbc.sql(COLUMNS + " where ended_at is null order by id").query(LinkStore::link).list();
  }

  Optional<Link> find(long id) {
    return jdbc.sql(COLUMNS + " where id = ? and ended_at is null")
        .param(id)
        .query(LinkStore::link)
        .optional();
  }

  List<Outlet> outlets(long link) {
    return jdbc.sql(CALENDARS + " where lc.link = ? order by lc.id")
        .param(link)
        .query(LinkStore::outlet)
        .list();
  }

  List<Outlet> outlets(Set<Long> ids) {
    return jdbc.sql(CALENDARS + " where lc.id = any(?) order by lc.id")
        .param(ids.toArray(Long[]::new))
        .query(LinkStore::outlet)
        .list();
  }

  Optional<Outlet> outlet(long id) {
    return jdbc.sql(CALENDARS + " where lc.id = ?").param(id).query(LinkStore::outlet).optional();
  }

  /** What the link's password belongs to. */
  static String owned(String account, URI home) {
    return account + "\n" + home;
  }

  Host.Account account(Link link) throws OutsideFault {
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
  void sealAnew(Link link, String password) {
    if (vault.isOld(link.sealed())) {
      Vault.Sealed sealed = vault.seal(password, owned(link.account(), link.home()));
      jdbc.sql("update link set sealed = ?, key_id = ? where id = ? and key_id = ?")
          .param(sealed.octets())
          .param(sealed.key())
          .param(link.id())
          .param(link.sealed().key())
          .update();
    }
  }

  // ---- Whose turn it is ------------------------------------------------------------------------

  /**
   * Takes links on which something is due, for a while; nobody else takes them meanwhile.
   *
   * @param most how many at most
   */
  @Transactional
  List<Long> claim(String me, Duration lease, int most) {
    if (house.copying().held()) {
      return List.of();
    }
    return jdbc.sql(
            """
            update link set leased_by = :me, leased_until = now() + :lease::interval
            where id in (
              select l.id from link l where l.ended_at is null and l.stopped_at is null
                and (l.leased_until is null or l.leased_until <= now())
                and (l.rest_until is null or l.rest_until <= now())
                and exists (select 1 from link_calendar c where c.link = l.id
                  and (c.read_due <= now() or exists (
                    select 1 from copy p where p.link_calendar = c.id and p.due_at <= now())))
              order by l.id limit :most for update skip locked)
            returning id
            """)
        .param("me", me)
        .param("lease", lease.toMillis() + " milliseconds")
        .param("most", most)
        .query(Long.class)
        .list();
  }

  /** Keeps a link for longer; false where somebody else has taken it, since it took too long. */
  @Transactional
  boolean keep(long link, String me, Duration lease) {
    return jdbc.sql(
                """
                update link set leased_until = now() + ?::interval where id = ? and leased_by = ?
                """)
            .param(lease.toMillis() + " milliseconds")
            .param(link)
            .param(me)
            .update()
        == 1;
  }

  /** Whether it is still ours, locked until the transaction ends. */
  boolean isOurs(long link, String me) {
    return jdbc.sql("select leased_by = ? from link where id = ? for share")
        .param(me)
        .param(link)
        .query(Boolean.class)
        .optional()
        .orElse(false);
  }

  @Transactional
  void letGo(long link, String me) {
    jdbc.sql("update link set leased_by = null, leased_until = null where id = ? and leased_by = ?")
        .param(link)
        .param(me)
        .update();
  }

  /** It answered: whatever ailed it is over. */
  @Transactional
  void isWell(long link) {
    jdbc.sql(
            """
            update link set fault = null, fault_words = null, fault_since = null, faults = 0,
              rest_until = null where id = ? and (fault is not null or faults > 0)
            """)
        .param(link)
        .update();
  }

  /** It is left alone for a while. */
  @Transactional
  void rests(long link, OutsideFault fault, Backoff backoff) {
    int faults =
        jdbc.sql("select faults from link where id = ?").param(link).query(Integer.class).single();
    Duration wait = fault.retryAfter().orElseGet(() -> backoff.after(faults));
    jdbc.sql(
            """
            update link set fault = ?, fault_words = ?, faults = faults + 1,
              fault_since = coalesce(fault_since, now()), rest_until = now() + ?::interval
            where id = ?
            """)
        .param(fault.kind().name())
        .param(fault.getMessage())
        .param(wait.toMillis() + " milliseconds")
        .param(link)
        .update();
  }
}
