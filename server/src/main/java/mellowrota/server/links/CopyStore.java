package mellowrota.server.links;

import java.net.URI;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.ZoneId;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Family;
import mellowrota.core.sight.Face;
import mellowrota.core.sync.Content;
import mellowrota.core.work.RecordId;
import mellowrota.server.ical.CopyText;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Copies as they are kept. */
@Component
class CopyStore {

  /** How a copy is. */
  enum State {
    /** It goes out when its time has come. */
    WAITS,
    /** It is being written, or nobody knows yet whether it arrived. */
    SENDING,
    SENT,
    /** The host refused it again and again; it is tried on, seldom. */
    REFUSED,
    /** It is off and nothing should stand there. */
    OFF,
    /** It should be off, and it is not known to be. */
    ASKED_OFF,
    /** Somebody took it off there. */
    TAKEN_OFF_THERE
  }

  private static final String COLUMNS =
      """
      select c.link_calendar, c.entry, c.href, c.state, c.wanted, c.written, c.stands, c.etag,
        c.attempt, c.attempt_tag, c.look, c.tries, e.uid, e.record, e.visit, e.family, l.rendering
      from copy c join entry e on e.id = c.entry join link_calendar l on l.id = c.link_calendar
      """;

  private final JdbcClient jdbc;

  CopyStore(JdbcClient jdbc) {
    this.jdbc = jdbc;
  }

  /**
   * A copy.
   *
   * @param wanted the tag of the face that should stand there; empty: nothing should
   * @param written the tag of the face last written
   * @param stands what stood there when it was last looked at
   * @param attempt what may have arrived there; an empty text: a removal
   * @param look whether it has to be looked at before anything is written
   * @param rendering as what it is written; empty: nothing is written there any more
   */
  record Copy(
      long outlet,
      long entry,
      URI href,
      State state,
      Optional<String> wanted,
      Optional<String> written,
      Optional<String> stands,
      Optional<String> etag,
      Optional<String> attempt,
      Optional<String> attemptTag,
      boolean look,
      int tries,
      String uid,
      RecordId record,
      int visit,
      Family family,
      Optional<RenderingId> rendering) {

    /** What a text says of it; an empty text, which is a removal, says nothing. */
    Optional<Content> content(Optional<String> text, ZoneId zone) {
      return text.filter(one -> !one.isEmpty())
          .flatMap(one -> CopyText.read(one, uid, zone))
          .map(CopyText.Read::content);
    }

    /** The same with something that may have arrived there. */
    Copy attempted(String text, Optional<String> tag) {
      return new Copy(
          outlet,
          entry,
          href,
          state,
          wanted,
          written,
          stands,
          etag,
          Optional.of(text),
          tag,
          look,
          tries,
          uid,
          record,
          visit,
          family,
          rendering);
    }
  }

  private static Copy copy(ResultSet row, int n) throws SQLException {
    long rendering = row.getLong(17);
    return new Copy(
        row.getLong(1),
        row.getLong(2),
        URI.create(row.getString(3)),
        State.valueOf(row.getString(4)),
        Optional.ofNullable(row.getString(5)),
        Optional.ofNullable(row.getString(6)),
        Optional.ofNullable(row.getString(7)),
        Optional.ofNullable(row.getString(8)),
        Optional.ofNullable(row.getString(9)),
        Optional.ofNullable(row.getString(10)),
        row.getBoolean(11),
        row.getInt(12),
        row.getString(13),
        RecordId.of(row.getLong(14)),
        row.getInt(15),
        Family.valueOf(row.getString(16)),
        rendering == 0 ? Optional.empty() : Optional.of(RenderingId.of(rendering)));
  }

  /** What is due on a link, the earliest first, and of those the nearest. */
  Optional<Copy> due(long link) {
    return jdbc.sql(
            COLUMNS
                + """
                where (c.link_calendar, c.entry) = (
                  select o.id, d.entry from link_calendar o cross join lateral (
                    select entry, due_at, near from copy where link_calendar = o.id
                      and due_at <= now() order by due_at, near limit 1) d
                  where o.link = ? order by d.due_at, d.near, d.entry limit 1)
                """)
        .param(link)
        .query(CopyStore::copy)
        .optional();
  }

  Optional<Copy> find(long outlet, long entry) {
    return jdbc.sql(COLUMNS + " where c.link_calendar = ? and c.entry = ?")
        .param(outlet)
        .param(entry)
        .query(CopyStore::copy)
        .optional();
  }

  List<Copy> of(long outlet) {
    return jdbc.sql(COLUMNS + " where c.link_calendar = ?")
        .param(outlet)
        .query(CopyStore::copy)
        .list();
  }

  /** Says that something is about to be written, before it is: it may arrive and nobody know. */
  void attempts(Copy copy, String text, Optional<String> tag) {
    jdbc.sql(
            """
            update copy set attempt = ?, attempt_tag = ?, state = ?
            where link_calendar = ? and entry = ?
            """)
        .param(text)
        .param(tag.orElse(null))
        .param(text.isEmpty() ? State.ASKED_OFF.name() : State.SENDING.name())
        .param(copy.outlet())
        .param(copy.entry())
        .update();
  }

  /** Nothing stands there any more; if something should by now, it goes out. */
  void off(Copy copy) {
    jdbc.sql(
            """
            update copy set state = case when wanted is null then 'OFF' else 'WAITS' end,
              due_at = case when wanted is null then null else now() end,
              open_since = case when wanted is null then null else open_since end,
              written = null, stands = null, etag = null, attempt = null, attempt_tag = null,
              look = false, tries = 0, fault = null, fault_words = null
            where link_calendar = ? and entry = ?
            """)
        .param(copy.outlet())
        .param(copy.entry())
        .update();
  }

  /**
   * What was found there. It is done if that is the face that should stand there by now; what was
   * opened meanwhile stays open.
   *
   * @param written the tag of the face that stands there, as far as it is ours
   * @param again whether it has to be written once more whatever its tag
   */
  void found(
      Copy copy, String stands, Optional<String> etag, Optional<String> written, boolean again) {
    jdbc.sql(
            """
            update copy set stands = :stands, etag = :etag, written = :written, attempt = null,
              attempt_tag = null, look = look and not :looked, fault = null, fault_words = null,
              tries = case when :again then tries else 0 end,
              state = case when wanted is null then 'ASKED_OFF' when :again then 'WAITS'
                when wanted is not distinct from :written then 'SENT' else 'WAITS' end,
              due_at = case when :again or wanted is null or look and not :looked then now()
                when wanted is not distinct from :written then null
                else coalesce(greatest(due_at, now() + interval '200 milliseconds'),
                  now() + interval '200 milliseconds') end,
              open_since = case when not :again and wanted is not distinct from :written
                then null else open_since end,
              sent_at = case when :again then sent_at else now() end
            where link_calendar = :outlet and entry = :entry
            """)
        .param("stands", stands)
        .param("etag", etag.orElse(null))
        .param("written", written.orElse(null))
        .param("again", again)
        // A look that was asked for meanwhile, as by a decision, is still to come.
        .param("looked", copy.look())
        .param("outlet", copy.outlet())
        .param("entry", copy.entry())
        .update();
  }

  /** Every line that we composed for whomever of this record, here or in another calendar. */
  Set<String> composed(Copy copy, ZoneId zone) {
    Set<String> found = new HashSet<>();
    jdbc.sql(
            """
            select f.content from face f join entry e on e.id = f.entry where e.record = ?
            """)
        .param(copy.record().value())
        .query(
            row -> {
              Face.parse(row.getString(1)).text().lines().map(String::strip).forEach(found::add);
            });
    jdbc.sql(
            """
            select e.uid, text from copy c join entry e on e.id = c.entry
              cross join lateral (values (c.stands), (c.attempt)) as t(text)
            where e.record = ? and text <> '' and (c.link_calendar, c.entry) <> (?, ?)
            """)
        .param(copy.record().value())
        .param(copy.outlet())
        .param(copy.entry())
        .query(
            row -> {
              CopyText.read(row.getString(2), row.getString(1), zone)
                  .map(read -> read.content().text())
                  .ifPresent(text -> text.lines().map(String::strip).forEach(found::add));
            });
    found.remove("");
    return found;
  }

  /** Nothing is there: what was written did not arrive, or was taken off and is put back. */
  void anew(Copy copy) {
    jdbc.sql(
            """
            update copy set stands = null, etag = null, written = null, attempt = null,
              attempt_tag = null, look = false, state = 'WAITS', due_at = now(), left_off = false
            where link_calendar = ? and entry = ?
            """)
        .param(copy.outlet())
        .param(copy.entry())
        .update();
  }

  /** Somebody took it off there, and it stays off for the time being. */
  void takenOffThere(Copy copy) {
    jdbc.sql(
            """
            update copy set state = 'TAKEN_OFF_THERE', stands = null, etag = null, attempt = null,
              attempt_tag = null, look = false, open_since = null, tries = 0,
              due_at = case when wanted is not distinct from ? then null else now() end
            where link_calendar = ? and entry = ?
            """)
        .param(copy.wanted().orElse(null))
        .param(copy.outlet())
        .param(copy.entry())
        .update();
  }

  /** Whoever's it is took it off there, and somebody said that it stays so. */
  void leaveOff(Copy copy) {
    jdbc.sql(
            """
            update copy set left_off = true, due_at = null, open_since = null, state =
              case when wanted is null then 'OFF' else 'TAKEN_OFF_THERE' end
            where link_calendar = ? and entry = ?
            """)
        .param(copy.outlet())
        .param(copy.entry())
        .update();
  }

  /** All of a calendar's are opened once more, whichever change they were opened by. */
  void openAnew(long outlet) {
    jdbc.sql("update copy set opened_no = 0 where link_calendar = ?").param(outlet).update();
  }

  /** It has to be looked at. */
  void look(long outlet, long entry) {
    jdbc.sql(
            """
            update copy set look = true, due_at = now() where link_calendar = ? and entry = ?
            """)
        .param(outlet)
        .param(entry)
        .update();
  }

  /** It did not go; it is tried again later. */
  void later(Copy copy, String fault, String words, Duration wait, boolean refused) {
    jdbc.sql(
            """
            update copy set tries = tries + 1, fault = ?, fault_words = ?,
              due_at = now() + ?::interval, state = case when ? then 'REFUSED' else state end
            where link_calendar = ? and entry = ?
            """)
        .param(fault)
        .param(words)
        .param(wait.toMillis() + " milliseconds")
        .param(refused)
        .param(copy.outlet())
        .param(copy.entry())
        .update();
  }
}
