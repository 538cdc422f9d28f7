package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Family;
import mellowrota.server.sight.store.CalendarStore;
import org.hibernate.LockMode;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** How copies are opened, many at a time. */
@Repository
@RequiredArgsConstructor
public class OpeningStore {

  /**
   * At most five minutes from the first open edit on, whatever comes after it. Native: HQL has
   * neither lists of rows nor what a row was before its update.
   */
  private static final String OPEN =
      """
      insert into copy as kept (link_calendar, entry, href, state, wanted, opened_no, open_since,
        due_at, near)
      select outlet, entry, href, case when tag = '' then 'OFF' else 'WAITS' end,
        nullif(tag, ''), no, case when tag = '' then null else cast(:now as timestamptz) end,
        case when tag = '' then null else due end, near
      from unnest(:outlets, :entries, :hrefs, :tags, :nos, :dues, :nears)
        as c(outlet, entry, href, tag, no, due, near)
      on conflict (link_calendar, entry) do update set
        wanted = excluded.wanted, opened_no = excluded.opened_no, near = excluded.near,
        state = case
          when excluded.wanted is null and (kept.state = 'OFF' or kept.left_off) then 'OFF'
          when kept.left_off then 'TAKEN_OFF_THERE'
          when excluded.wanted is null then 'ASKED_OFF'
          when kept.state in ('SENDING', 'REFUSED', 'TAKEN_OFF_THERE') then kept.state
          else 'WAITS' end,
        open_since = case when excluded.wanted is null and kept.state = 'OFF' or kept.left_off
          then null else coalesce(kept.open_since, cast(:now as timestamptz)) end,
        due_at = case when excluded.wanted is null and kept.state = 'OFF' or kept.left_off
          then null when :hurry then cast(:now as timestamptz)
          else least(excluded.due_at, coalesce(kept.open_since, cast(:now as timestamptz)) + interval '5 minutes') end
      """;

  private final EntityManager kept;
  private final CalendarStore calendars;

  /**
   * Locks the next calendars that are written to and have not seen all of ours yet, and says how
   * far ours is; none that somebody else has locked.
   *
   * @param after up to which of them it went last
   */
  public Map<Long, Long> lockBehind(long after, int most) {
    List<OutletEntity> found =
        kept.unwrap(Session.class)
            .createQuery(
                """
                from OutletEntity o where o.id > :after
                  and exists (select 1 from LinkEntity k where k.id = o.link and k.endedAt is null)
                  and exists (select 1 from RenderingEntity r join CalendarEntity c
                    on c.id = r.calendar where r.id = o.rendering and c.changeNo > o.seenNo)
                order by o.id
                """,
                OutletEntity.class)
            .setParameter("after", after)
            .setMaxResults(most)
            .setHibernateLockMode(LockMode.UPGRADE_SKIPLOCKED)
            .getResultList();
    if (found.isEmpty()) {
      return Map.of();
    }
    Map<RenderingId, Long> numbers =
        calendars.changeNos(found.stream().map(one -> RenderingId.of(one.rendering)).toList());
    Map<Long, Long> behind = new LinkedHashMap<>();
    found.forEach(one -> behind.put(one.id, numbers.get(RenderingId.of(one.rendering))));
    return behind;
  }

  /** A face that changed, for a calendar that is written to. */
  public record Changed(
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

  /**
   * What these have not seen yet, at most so much of each. Native: HQL limits no question within
   * another for each of its rows.
   */
  public List<Changed> since(Collection<Long> outlets, int most) {
    return kept
        .unwrap(Session.class)
        .createNativeQuery(
            """
            select l.id, o.* from link_calendar l cross join lateral (
              select f.entry, e.uid, e.family, f.live, f.etag, f.hurries, f.starts, f.ends,
                f.change_no
              from face f join entry e on e.id = f.entry
              where f.rendering = l.rendering and f.change_no > l.seen_no
                and not exists (select 1 from copy p where p.link_calendar = l.id
                  and p.entry = f.entry and p.opened_no = f.change_no)
              order by f.change_no, f.starts, f.entry limit :most) o
            where l.id = any(:outlets) order by l.id, o.change_no, o.starts, o.entry
            """,
            Row.class)
        .setParameter("most", most)
        .setParameter("outlets", outlets.toArray(Long[]::new))
        .getResultList()
        .stream()
        .map(Row::changed)
        .toList();
  }

  private record Row(
      long outlet,
      long entry,
      String uid,
      String family,
      boolean live,
      String etag,
      boolean hurries,
      Instant starts,
      Instant ends,
      long changeNo) {

    Changed changed() {
      return new Changed(
          outlet, entry, uid, Family.valueOf(family), live, etag, hurries, starts, ends, changeNo);
    }
  }

  /**
   * What is to be opened.
   *
   * @param tag of the face that should stand there; empty: nothing should
   * @param due when it goes out, if it stands nowhere yet
   * @param near how far off its work is, in seconds
   */
  public record Opening(
      long outlet, long entry, String href, String tag, long changeNo, Instant due, long near) {}

  /**
   * Opens them.
   *
   * @param hurry whether what stands there already goes out at once
   */
  public void open(List<Opening> all, Instant now, boolean hurry) {
    kept.createNativeQuery(OPEN)
        .setParameter("now", now)
        .setParameter("hurry", hurry)
        .setParameter("outlets", column(all, Opening::outlet).toArray(Long[]::new))
        .setParameter("entries", column(all, Opening::entry).toArray(Long[]::new))
        .setParameter("hrefs", column(all, Opening::href).toArray(String[]::new))
        .setParameter("tags", column(all, Opening::tag).toArray(String[]::new))
        .setParameter("nos", column(all, Opening::changeNo).toArray(Long[]::new))
        .setParameter("dues", column(all, Opening::due).toArray(Instant[]::new))
        .setParameter("nears", column(all, Opening::near).toArray(Long[]::new))
        .executeUpdate();
  }

  private static <T> List<T> column(List<Opening> all, Function<Opening, T> of) {
    return all.stream().map(of).toList();
  }

  /** A calendar has seen ours up to this change; it is locked. */
  public void seen(long outlet, long changeNo) {
    kept.find(OutletEntity.class, outlet).seenNo = changeNo;
  }
}
