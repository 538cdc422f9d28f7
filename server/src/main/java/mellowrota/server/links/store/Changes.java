package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.PersonId;
import mellowrota.core.sync.Content;
import mellowrota.core.sync.Edit;
import mellowrota.core.sync.Hold;
import mellowrota.core.sync.Part;
import mellowrota.server.ical.CopyText;
import org.springframework.stereotype.Repository;

/** What was changed in outside calendars, as it is kept. */
@Repository
@RequiredArgsConstructor
public class Changes {

  /** What became of it. */
  public enum State {
    TAKEN,
    PROPOSED,
    PUT_BACK,
    /** A proposal that somebody decided, or that another change there overtook. */
    SETTLED
  }

  private final EntityManager kept;
  private final Clock clock;

  /** What is to be kept of one. */
  public record Fresh(
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
  public void keep(CopyStore.Copy copy, Fresh one) {
    settleEarlier(copy, one.part());
    OutsideChangeEntity entity = new OutsideChangeEntity();
    entity.outlet = copy.outlet();
    entity.entry = copy.entry();
    entity.at = clock.instant();
    entity.part = one.part();
    entity.sent = one.sent();
    entity.theirs = one.theirs();
    entity.ours = one.ours();
    entity.theirsText = one.theirsText().orElse(null);
    entity.oursText = one.oursText().orElse(null);
    entity.state = one.state();
    entity.stays = one.stays();
    entity.words = one.words();
    entity.act = one.act().orElse(null);
    kept.persist(entity);
  }

  private void settleEarlier(CopyStore.Copy copy, String part) {
    kept.createQuery(
            """
            update OutsideChangeEntity set state = SETTLED, stays = false, settledAt = :at,
              words = 'It was changed there once more.'
            where outlet = :outlet and entry = :entry and part = :part and state = PROPOSED
              and part <> 'NOTE'
            """)
        .setParameter("at", clock.instant())
        .setParameter("outlet", copy.outlet())
        .setParameter("entry", copy.entry())
        .setParameter("part", part)
        .executeUpdate();
  }

  /** What stays there for the time being. */
  public List<Hold> holds(CopyStore.Copy copy, ZoneId zone) {
    List<Hold> found = new ArrayList<>();
    List<OutsideChangeEntity> staying =
        kept.createQuery(
                """
                from OutsideChangeEntity
                where outlet = :outlet and entry = :entry and stays = true order by id
                """,
                OutsideChangeEntity.class)
            .setParameter("outlet", copy.outlet())
            .setParameter("entry", copy.entry())
            .getResultList();
    for (OutsideChangeEntity one : staying) {
      Part part = Part.valueOf(one.part);
      Optional<Content> ours = content(one.oursText, copy.uid(), zone);
      Optional<Content> theirs = content(one.theirsText, copy.uid(), zone);
      if (ours.isPresent() && theirs.isPresent()) {
        Content held =
            part == Part.NOTE ? new Content("", "", one.theirs, ours.get().times()) : theirs.get();
        found.add(new Hold(part, held, ours.get()));
      }
    }
    return found;
  }

  private static Optional<Content> content(String text, String uid, ZoneId zone) {
    return text == null
        ? Optional.empty()
        : CopyText.read(text, uid, zone).map(CopyText.Read::content);
  }

  /** In words, for looking at side by side. */
  public static String words(Object value) {
    if (value instanceof EntryTimes.Timed timed) {
      return timed.start() + "/" + timed.end();
    }
    if (value instanceof EntryTimes.AllDay days) {
      return days.days().first() + "/" + days.days().until();
    }
    return String.valueOf(value);
  }

  /** One that was compared, with what becomes of it. */
  public static Fresh fresh(
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
  public boolean settle(
      long id, PersonId by, State state, boolean stays, String words, Optional<Long> act) {
    return kept.createQuery(
                """
                update OutsideChangeEntity set state = :state, stays = :stays, words = :words,
                  act = coalesce(:act, act), settledAt = :at, settledBy = :by
                where id = :id and state = PROPOSED
                """)
            .setParameter("state", state)
            .setParameter("stays", stays)
            .setParameter("words", words)
            .setParameter("act", act.orElse(null))
            .setParameter("at", clock.instant())
            .setParameter("by", by.value())
            .setParameter("id", id)
            .executeUpdate()
        == 1;
  }

  /** How an entry stood, ours and theirs, when it was changed. */
  public record Texts(String ours, String theirs) {}

  public Texts texts(long id) {
    OutsideChangeEntity entity = kept.find(OutsideChangeEntity.class, id);
    return new Texts(entity.oursText, entity.theirsText);
  }
}
