package mellowrota.server.links;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.entry.Family;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Writes;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.RowCallbackHandler;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Opens copies of what changed. A calendar's change numbers come in the order of commit, so that
 * reading on from the last one misses nothing, and a save has nothing to do with copies.
 */
@Component
class Openings {

  private static final int AT_ONCE = 500;

  /** From the first open edit on, whatever comes after it. */
  private static final String AT_MOST = "interval '5 minutes'";

  /** Work that starts by then does not wait. */
  private static final Duration SOON = Duration.ofHours(2);

  /** Calendars that are written to are looked after so many at once. */
  private static final int OUTLETS = 50;

  private static final List<String> COLUMNS =
      List.of("bigint", "bigint", "text", "text", "bigint", "timestamptz", "bigint");

  /** What follows is when a copy is due that was kept before. */
  private static final String OPEN =
      """
      insert into copy as kept (link_calendar, entry, href, state, wanted, opened_no, open_since,
        due_at, near)
      select outlet, entry, href, case when tag = '' then 'OFF' else 'WAITS' end,
        nullif(tag, ''), no, case when tag = '' then null else now() end,
        case when tag = '' then null else now() + wait * interval '1 millisecond' end,
        abs(extract(epoch from starts - now()))::bigint
      from %s as c(outlet, entry, href, tag, no, starts, wait)
      on conflict (link_calendar, entry) do update set
        wanted = excluded.wanted, opened_no = excluded.opened_no, near = excluded.near,
        state = case
          when excluded.wanted is null and (kept.state = 'OFF' or kept.left_off) then 'OFF'
          when kept.left_off then 'TAKEN_OFF_THERE'
          when excluded.wanted is null then 'ASKED_OFF'
          when kept.state in ('SENDING', 'REFUSED', 'TAKEN_OFF_THERE') then kept.state
          else 'WAITS' end,
        open_since = case when excluded.wanted is null and kept.state = 'OFF' or kept.left_off then null
          else coalesce(kept.open_since, now()) end,
        due_at = case when excluded.wanted is null and kept.state = 'OFF' or kept.left_off then null else
      """;

  private final HouseStore house;
  private final JdbcClient jdbc;
  private final JdbcTemplate template;
  private final LinkStore links;
  private final Worlds worlds;
  private final Clock clock;
  private final Optional<Duration> wait;
  private final TransactionTemplate transaction;

  /** Up to which of them it went last, so that all have their turn; 0: from the first on. */
  private long after;

  Openings(
      HouseStore house,
      JdbcClient jdbc,
      JdbcTemplate template,
      LinkStore links,
      Worlds worlds,
      Clock clock,
      @Value("${mellow.copies.wait:#{null}}") Duration wait,
      PlatformTransactionManager transactions) {
    this.house = house;
    this.jdbc = jdbc;
    this.template = template;
    this.links = links;
    this.worlds = worlds;
    this.clock = clock;
    this.wait = Optional.ofNullable(wait);
    transaction = new TransactionTemplate(transactions);
  }

  /** Opens what there is; true while there may be more. */
  boolean some() {
    return Boolean.TRUE.equals(transaction.execute(status -> openSome()));
  }

  /** What a calendar that is written to has not seen yet, up to where its calendar is by now. */
  private record Behind(LinkStore.Outlet outlet, long upTo, List<Changed> changed) {

    boolean more() {
      return changed.size() == AT_ONCE;
    }

    /** A whole act's changes of a calendar have one number, so that a part is read again. */
    long seen() {
      return more() ? changed.get(AT_ONCE - 1).changeNo() - 1 : upTo;
    }
  }

  private record Changed(
      long outlet,
      long entry,
      String uid,
      Family family,
      boolean live,
      String etag,
      boolean hurries,
      Instant starts,
      Instant ends,
      long changeNo) {}

  private boolean openSome() {
    long from = after;
    Map<Long, Long> locked = new LinkedHashMap<>();
    jdbc.sql(
            """
            select l.id, c.change_no from link_calendar l join link k on k.id = l.link
              join rendering r on r.id = l.rendering join calendar c on c.id = r.calendar
            where k.ended_at is null and c.change_no > l.seen_no and l.id > ? order by l.id limit ?
            for update of l skip locked
            """)
        .param(from)
        .param(OUTLETS)
        .query((RowCallbackHandler) row -> locked.put(row.getLong(1), row.getLong(2)));
    after = locked.size() < OUTLETS ? 0 : Collections.max(locked.keySet());
    if (locked.isEmpty()) {
      return from > 0;
    }
    Map<Long, List<Changed>> changed =
        since(locked.keySet()).stream().collect(Collectors.groupingBy(Changed::outlet));
    List<Behind> behind =
        links.outlets(locked.keySet()).stream()
            .map(
                one ->
                    new Behind(
                        one, locked.get(one.id()), changed.getOrDefault(one.id(), List.of())))
            .toList();
    if (!changed.isEmpty()) {
      open(worlds.now(), behind);
    }
    jdbc.sql(
            """
            update link_calendar l set seen_no = s.no
            from unnest(?::bigint[], ?::bigint[]) as s(id, no) where s.id = l.id
            """)
        .param(behind.stream().map(one -> one.outlet().id()).toArray(Long[]::new))
        .param(behind.stream().map(Behind::seen).toArray(Long[]::new))
        .update();
    return from > 0 || after > 0 || behind.stream().anyMatch(Behind::more);
  }

  private List<Changed> since(Set<Long> outlets) {
    return jdbc.sql(
            """
            select l.id, o.* from link_calendar l cross join lateral (
              select f.entry, e.uid, e.family, f.live, f.etag, f.hurries, f.starts, f.ends,
                f.change_no
              from face f join entry e on e.id = f.entry
              where f.rendering = l.rendering and f.change_no > l.seen_no
                and not exists (select 1 from copy p where p.link_calendar = l.id
                  and p.entry = f.entry and p.opened_no = f.change_no)
              order by f.change_no, f.starts, f.entry limit ?) o
            where l.id = any(?) order by l.id, o.change_no, o.starts, o.entry
            """)
        .param(AT_ONCE)
        .param(outlets.toArray(Long[]::new))
        .query(
            (row, n) ->
                new Changed(
                    row.getLong(1),
                    row.getLong(2),
                    row.getString(3),
                    Family.valueOf(row.getString(4)),
                    row.getBoolean(5),
                    row.getString(6),
                    row.getBoolean(7),
                    row.getObject(8, OffsetDateTime.class).toInstant(),
                    row.getObject(9, OffsetDateTime.class).toInstant(),
                    row.getLong(10)))
        .list();
  }

  /** All in one statement, so that many links cost little beside the saves that feed them. */
  private void open(World world, List<Behind> behind) {
    Instant now = clock.instant();
    long wait = waits();
    List<Object[]> hurrying = new ArrayList<>();
    List<Object[]> waiting = new ArrayList<>();
    for (Behind one : behind) {
      for (Changed changed : one.changed()) {
        LinkStore.Outlet outlet = one.outlet();
        boolean wanted = wanted(world, outlet, changed);
        boolean soon = soon(changed, now);
        // What stands nowhere yet hides nothing by waiting.
        (!wanted || changed.hurries() || soon ? hurrying : waiting)
            .add(
                new Object[] {
                  outlet.id(),
                  changed.entry(),
                  href(outlet, changed.uid()),
                  wanted ? changed.etag() : "",
                  changed.changeNo(),
                  changed.starts(),
                  soon ? 0L : wait
                });
      }
    }
    Writes writes = new Writes();
    if (!hurrying.isEmpty()) {
      writes.addTable(OPEN + "now() end", COLUMNS, hurrying);
    }
    if (!waiting.isEmpty()) {
      writes.addTable(
          OPEN + "least(excluded.due_at, coalesce(kept.open_since, now()) + " + AT_MOST + ") end",
          COLUMNS,
          waiting);
    }
    writes.send(template);
  }

  private static boolean wanted(World world, LinkStore.Outlet outlet, Changed one) {
    boolean past = outlet.from().filter(day -> endsBefore(one, day, world)).isPresent();
    return one.live()
        && !outlet.withdrawn()
        && !outlet.overruled()
        && outlet.takes(one.family())
        && !past;
  }

  private static boolean soon(Changed one, Instant now) {
    // A ticket begins when it is given, which is mostly now; its work presses when it is due.
    Instant begins = one.family() == Family.GIVEN_DUE ? one.ends() : one.starts();
    return begins.isBefore(now.plus(SOON)) && one.ends().isAfter(now);
  }

  private static boolean endsBefore(Changed one, LocalDate day, World world) {
    return one.ends().isBefore(day.atStartOfDay(world.house().zone()).toInstant());
  }

  /** The address is fixed before the first try and never changes (RFC 4791 §5.3.2). */
  private static String href(LinkStore.Outlet outlet, String uid) {
    return outlet.href() + uid.replaceAll("[^A-Za-z0-9-]", "-") + ".ics";
  }

  /** How long copies wait, in milliseconds. */
  long waits() {
    return wait.map(Duration::toMillis).orElseGet(() -> 1000L * house.copying().waits());
  }
}
