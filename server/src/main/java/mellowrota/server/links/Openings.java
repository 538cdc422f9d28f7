package mellowrota.server.links;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import mellowrota.core.entry.Family;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.beans.factory.annotation.Value;
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
  private static final Duration AT_MOST = Duration.ofMinutes(5);

  /** Work that starts by then does not wait. */
  private static final Duration SOON = Duration.ofHours(2);

  private final JdbcClient jdbc;
  private final LinkStore links;
  private final Worlds worlds;
  private final Clock clock;
  private final Optional<Duration> wait;
  private final TransactionTemplate transaction;

  Openings(
      JdbcClient jdbc,
      LinkStore links,
      Worlds worlds,
      Clock clock,
      @Value("${mellow.copies.wait:#{null}}") Duration wait,
      PlatformTransactionManager transactions) {
    this.jdbc = jdbc;
    this.links = links;
    this.worlds = worlds;
    this.clock = clock;
    this.wait = Optional.ofNullable(wait);
    transaction = new TransactionTemplate(transactions);
  }

  /** Opens what there is; true while there may be more. */
  boolean some() {
    List<Long> behind =
        jdbc.sql(
                """
                select l.id from link_calendar l join link k on k.id = l.link
                  join rendering r on r.id = l.rendering join calendar c on c.id = r.calendar
                where k.ended_at is null and c.change_no > l.seen_no order by l.id
                """)
            .query(Long.class)
            .list();
    boolean more = false;
    for (long outlet : behind) {
      more |= Boolean.TRUE.equals(transaction.execute(status -> open(outlet)));
    }
    return more;
  }

  private record Changed(
      long entry,
      String uid,
      Family family,
      boolean live,
      String etag,
      boolean hurries,
      Instant starts,
      Instant ends,
      long changeNo) {}

  private boolean open(long id) {
    Optional<Long> locked =
        jdbc.sql("select seen_no from link_calendar where id = ? for update skip locked")
            .param(id)
            .query(Long.class)
            .optional();
    if (locked.isEmpty()) {
      return false;
    }
    LinkStore.Outlet outlet = links.outlet(id).orElseThrow();
    World world = worlds.now();
    long upTo =
        jdbc.sql("select change_no from calendar where id = ?")
            .param(outlet.calendar().orElseThrow().value())
            .query(Long.class)
            .single();
    List<Changed> changed = since(outlet);
    for (Changed one : changed) {
      open(world, outlet, one);
    }
    boolean more = changed.size() == AT_ONCE;
    jdbc.sql("update link_calendar set seen_no = ? where id = ?")
        .param(more ? changed.get(AT_ONCE - 1).changeNo() - 1 : upTo)
        .param(id)
        .update();
    return more;
  }

  /** A whole act's changes of a calendar have one number, so that a part of them is read again. */
  private List<Changed> since(LinkStore.Outlet outlet) {
    return jdbc.sql(
            """
            select f.entry, e.uid, e.family, f.live, f.etag, f.hurries, f.starts, f.ends,
              f.change_no
            from face f join entry e on e.id = f.entry
            where f.rendering = :rendering and f.change_no > :seen
              and not exists (select 1 from copy p where p.link_calendar = :outlet
                and p.entry = f.entry and p.opened_no = f.change_no)
            order by f.change_no, f.starts, f.entry limit :most
            """)
        .param("rendering", outlet.rendering().orElseThrow().value())
        .param("seen", outlet.seenNo())
        .param("outlet", outlet.id())
        .param("most", AT_ONCE)
        .query(
            (row, n) ->
                new Changed(
                    row.getLong(1),
                    row.getString(2),
                    Family.valueOf(row.getString(3)),
                    row.getBoolean(4),
                    row.getString(5),
                    row.getBoolean(6),
                    row.getObject(7, OffsetDateTime.class).toInstant(),
                    row.getObject(8, OffsetDateTime.class).toInstant(),
                    row.getLong(9)))
        .list();
  }

  private void open(World world, LinkStore.Outlet outlet, Changed one) {
    Instant now = clock.instant();
    boolean past = outlet.from().filter(day -> endsBefore(one, day, world)).isPresent();
    boolean wanted =
        one.live()
            && !outlet.withdrawn()
            && !outlet.overruled()
            && outlet.takes(one.family())
            && !past;
    // A ticket begins when it is given, which is mostly now; its work presses when it is due.
    Instant begins = one.family() == Family.GIVEN_DUE ? one.ends() : one.starts();
    boolean soon = begins.isBefore(now.plus(SOON)) && one.ends().isAfter(now);
    // What stands nowhere yet hides nothing by waiting.
    boolean hurries = !wanted || one.hurries() || soon;
    jdbc.sql(
            """
            insert into copy (link_calendar, entry, href, state, wanted, opened_no, open_since,
              due_at, near)
            select :outlet, :entry, :href, case when :wanted::text is null then 'OFF' else 'WAITS' end,
              :wanted, :no, case when :wanted::text is null then null else now() end,
              case when :wanted::text is null then null
                when :soon then now() else now() + :wait::interval end,
              abs(extract(epoch from :starts::timestamptz - now()))::bigint
            on conflict (link_calendar, entry) do update set
              wanted = excluded.wanted, opened_no = excluded.opened_no, near = excluded.near,
              state = case
                when excluded.wanted is null and copy.state = 'OFF' then 'OFF'
                when excluded.wanted is null then 'ASKED_OFF'
                when copy.state in ('SENDING', 'REFUSED', 'TAKEN_OFF_THERE') then copy.state
                else 'WAITS' end,
              open_since = case when excluded.wanted is null and copy.state = 'OFF' then null
                else coalesce(copy.open_since, now()) end,
              due_at = case
                when excluded.wanted is null and copy.state = 'OFF' then null
                when :hurries then now()
                else least(now() + :wait::interval,
                  coalesce(copy.open_since, now()) + :most::interval) end
            """)
        .param("outlet", outlet.id())
        .param("entry", one.entry())
        .param("href", href(outlet, one.uid()))
        .param("wanted", wanted ? one.etag() : null)
        .param("no", one.changeNo())
        .param("hurries", hurries)
        .param("soon", soon)
        .param("starts", one.starts().atOffset(ZoneOffset.UTC))
        .param("wait", waits() + " milliseconds")
        .param("most", AT_MOST.toMillis() + " milliseconds")
        .update();
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
    return wait.map(Duration::toMillis)
        .orElseGet(
            () -> 1000L * jdbc.sql("select copies_wait from house").query(Integer.class).single());
  }
}
