package mellowrota.server.links;

import java.time.Clock;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.PersonId;
import mellowrota.core.sync.Content;
import mellowrota.core.sync.Edit;
import mellowrota.core.sync.Hold;
import mellowrota.core.sync.Part;
import mellowrota.server.ical.CopyText;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What was changed in outside calendars, as it is kept. */
@Component
class Changes {

  /** What became of it. */
  enum State {
    TAKEN,
    PROPOSED,
    PUT_BACK,
    /** A proposal that somebody decided, or that another change there overtook. */
    SETTLED
  }

  private final JdbcClient jdbc;
  private final Clock clock;

  Changes(JdbcClient jdbc, Clock clock) {
    this.jdbc = jdbc;
    this.clock = clock;
  }

  /** What is to be kept of one. */
  record Fresh(
      String part,
      String sent,
      String theirs,
      String ours,
      Optional<String> theirsText,
      Optional<String> oursText,
      State state,
      boolean stays,
      String words,
      Optional<Long> act) {}

  /** Keeps one; an open proposal about the same part is overtaken by it. */
  void keep(CopyStore.Copy copy, Fresh one) {
    jdbc.sql(
            """
            update outside_change set state = 'SETTLED', stays = false, settled_at = :at,
              words = 'It was changed there once more.'
            where link_calendar = :outlet and entry = :entry and part = :part
              and state = 'PROPOSED' and part <> 'NOTE'
            """)
        .param("at", clock.instant().atOffset(ZoneOffset.UTC))
        .param("outlet", copy.outlet())
        .param("entry", copy.entry())
        .param("part", one.part())
        .update();
    jdbc.sql(
            """
            insert into outside_change (link_calendar, entry, at, part, sent, theirs, ours,
              theirs_ics, ours_ics, state, stays, words, act)
            values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
            """)
        .param(copy.outlet())
        .param(copy.entry())
        .param(clock.instant().atOffset(ZoneOffset.UTC))
        .param(one.part())
        .param(one.sent())
        .param(one.theirs())
        .param(one.ours())
        .param(one.theirsText().orElse(null))
        .param(one.oursText().orElse(null))
        .param(one.state().name())
        .param(one.stays())
        .param(one.words())
        .param(one.act().orElse(null))
        .update();
  }

  /** What stays there for the time being. */
  List<Hold> holds(CopyStore.Copy copy, ZoneId zone) {
    List<Hold> found = new ArrayList<>();
    jdbc.sql(
            """
            select part, theirs, theirs_ics, ours_ics from outside_change
            where link_calendar = ? and entry = ? and stays order by id
            """)
        .param(copy.outlet())
        .param(copy.entry())
        .query(
            row -> {
              Part part = Part.valueOf(row.getString(1));
              Optional<Content> ours = content(row.getString(4), copy.uid(), zone);
              Optional<Content> theirs = content(row.getString(3), copy.uid(), zone);
              if (ours.isPresent() && theirs.isPresent()) {
                Content held =
                    part == Part.NOTE
                        ? new Content("", "", row.getString(2), ours.get().times())
                        : theirs.get();
                found.add(new Hold(part, held, ours.get()));
              }
            });
    return found;
  }

  private static Optional<Content> content(String text, String uid, ZoneId zone) {
    return text == null
        ? Optional.empty()
        : CopyText.read(text, uid, zone).map(CopyText.Read::content);
  }

  /** In words, for looking at side by side. */
  static String words(Object value) {
    if (value instanceof EntryTimes.Timed timed) {
      return timed.start() + "/" + timed.end();
    }
    if (value instanceof EntryTimes.AllDay days) {
      return days.days().first() + "/" + days.days().until();
    }
    return String.valueOf(value);
  }

  /** One that was compared, with what becomes of it. */
  static Fresh fresh(
      Edit edit,
      Optional<String> theirsText,
      Optional<String> oursText,
      State state,
      String words,
      Optional<Long> act) {
    boolean stays =
        edit.standsThere()
            && (state == State.PROPOSED || state == State.TAKEN && edit.part() == Part.NOTE);
    return new Fresh(
        edit.part().name(),
        words(edit.sent()),
        words(edit.theirs()),
        words(edit.ours()),
        theirsText,
        oursText,
        state,
        stays,
        words,
        act);
  }

  /** Decides a proposal; false where it is decided already. */
  boolean settle(
      long id, PersonId by, State state, boolean stays, String words, Optional<Long> act) {
    return jdbc.sql(
                """
                update outside_change set state = ?, stays = ?, words = ?, act = coalesce(?, act),
                  settled_at = ?, settled_by = ? where id = ? and state = 'PROPOSED'
                """)
            .param(state.name())
            .param(stays)
            .param(words)
            .param(act.orElse(null))
            .param(clock.instant().atOffset(ZoneOffset.UTC))
            .param(by.value())
            .param(id)
            .update()
        == 1;
  }
}
