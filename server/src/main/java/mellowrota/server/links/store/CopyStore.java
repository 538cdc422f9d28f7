package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.Query;
import jakarta.persistence.TypedQuery;
import java.net.URI;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Family;
import mellowrota.core.sight.Face;
import mellowrota.core.sync.Content;
import mellowrota.core.work.RecordId;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.ical.CopyText;
import mellowrota.server.platform.Locks;
import org.springframework.stereotype.Repository;

/** Copies as they are kept. */
@Repository
@RequiredArgsConstructor
public class CopyStore {

  /** How a copy is. */
  public enum State {
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

  /** What was done to a copy is looked at again so much later, if it is not done by then. */
  private static final Duration BREATH = Duration.ofMillis(200);

  private static final String OF_A_LINK =
      " where outlet in (select o.id from OutletEntity o where o.link = :link)";

  private static final String ONE = " where outlet = :outlet and entry = :entry";

  private final EntityManager kept;
  private final Entries entries;
  private final Locks locks;
  private final Clock clock;

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
  public record Copy(
      long outlet,
      long entry,
      URI href,
      State state,
      Optional<String> wanted,
      Optional<String> written,
      Optional<String> stands,
      Optional<String> etag,
      @With Optional<String> attempt,
      @With Optional<String> attemptTag,
      boolean look,
      int tries,
      String uid,
      RecordId record,
      int visit,
      Family family,
      Optional<RenderingId> rendering) {

    /** What a text says of it; an empty text, which is a removal, says nothing. */
    public Optional<Content> content(Optional<String> text, ZoneId zone) {
      return text.filter(one -> !one.isEmpty())
          .flatMap(one -> CopyText.read(one, uid, zone))
          .map(CopyText.Read::content);
    }
  }

  /** They are written past the session, which therefore keeps none of them. */
  private List<CopyEntity> found(TypedQuery<CopyEntity> query) {
    List<CopyEntity> found = query.getResultList();
    found.forEach(kept::detach);
    return found;
  }

  private List<Copy> copies(TypedQuery<CopyEntity> query) {
    List<CopyEntity> found = found(query);
    return copies(
        found,
        renderings("holds(:of, id)", found.stream().map(one -> one.outlet).toArray(Long[]::new)));
  }

  private List<Copy> copies(List<CopyEntity> found, Map<Long, Optional<RenderingId>> renderings) {
    Map<Long, Entries.Known> known =
        entries.byId(found.stream().map(one -> one.entry).collect(Collectors.toSet()));
    return found.stream()
        .map(one -> copy(one, known.get(one.entry), renderings.get(one.outlet)))
        .toList();
  }

  /** As what calendars of a link are written; empty: nothing is written there any more. */
  private Map<Long, Optional<RenderingId>> renderings(String which, Object of) {
    record Written(long outlet, Long rendering) {}
    return kept
        .createQuery("select id, rendering from OutletEntity where " + which, Written.class)
        .setParameter("of", of)
        .getResultList()
        .stream()
        .collect(
            Collectors.toMap(
                Written::outlet, one -> Optional.ofNullable(one.rendering()).map(RenderingId::of)));
  }

  private static Copy copy(CopyEntity one, Entries.Known entry, Optional<RenderingId> rendering) {
    return new Copy(
        one.outlet,
        one.entry,
        URI.create(one.href),
        one.state,
        Optional.ofNullable(one.wanted),
        Optional.ofNullable(one.written),
        Optional.ofNullable(one.stands),
        Optional.ofNullable(one.etag),
        Optional.ofNullable(one.attempt),
        Optional.ofNullable(one.attemptTag),
        one.look,
        one.tries,
        entry.uid(),
        entry.key().record(),
        entry.key().visit(),
        entry.key().family(),
        rendering);
  }

  /** What is due on a link, the earliest first, and of those the nearest. */
  public Optional<Copy> due(long link) {
    Instant now = clock.instant();
    Map<Long, Optional<RenderingId>> outlets = renderings("link = :of", link);
    // One question for each calendar, which finds it by the index.
    return outlets.keySet().stream()
        .flatMap(
            outlet ->
                found(
                    kept.createQuery(
                            """
                                from CopyEntity where outlet = :outlet and dueAt <= :now
                                order by dueAt, near
                                """,
                            CopyEntity.class)
                        .setParameter("outlet", outlet)
                        .setParameter("now", now)
                        .setMaxResults(1))
                    .stream())
        .min(
            Comparator.<CopyEntity, Instant>comparing(one -> one.dueAt)
                .thenComparing(one -> one.near)
                .thenComparing(one -> one.entry))
        .flatMap(one -> copies(List.of(one), outlets).stream().findFirst());
  }

  public Optional<Copy> find(long outlet, long entry) {
    return copies(
            kept.createQuery("from CopyEntity" + ONE, CopyEntity.class)
                .setParameter("outlet", outlet)
                .setParameter("entry", entry))
        .stream()
        .findFirst();
  }

  public List<Copy> of(long outlet) {
    return copies(
        kept.createQuery("from CopyEntity where outlet = :outlet", CopyEntity.class)
            .setParameter("outlet", outlet));
  }

  private Query change(Copy copy, String set) {
    return change(copy.outlet(), copy.entry(), set);
  }

  private Query change(long outlet, long entry, String set) {
    return kept.createQuery("update CopyEntity set " + set + ONE)
        .setParameter("outlet", outlet)
        .setParameter("entry", entry);
  }

  /**
   * Says that something is about to be written, before it is: it may arrive and nobody know.
   * Native: an update in HQL is translated anew each time, and each copy asks for this one.
   */
  public void attempts(Copy copy, String text, Optional<String> tag) {
    kept.createNativeQuery(
            """
            update copy set attempt = :text, attempt_tag = cast(:tag as text), state = :state
            where link_calendar = :outlet and entry = :entry
            """)
        .setParameter("text", text)
        .setParameter("tag", tag.orElse(null))
        .setParameter("state", (text.isEmpty() ? State.ASKED_OFF : State.SENDING).name())
        .setParameter("outlet", copy.outlet())
        .setParameter("entry", copy.entry())
        .executeUpdate();
  }

  /** Nothing stands there any more; if something should by now, it goes out. */
  public void off(Copy copy) {
    change(
            copy,
            """
            state = case when wanted is null then :off else :waits end,
              dueAt = case when wanted is null then null else cast(:now as Instant) end,
              openSince = case when wanted is null then null else openSince end,
              written = null, stands = null, etag = null, attempt = null, attemptTag = null,
              look = false, tries = 0, fault = null, faultWords = null
            """)
        .setParameter("off", State.OFF)
        .setParameter("waits", State.WAITS)
        .setParameter("now", clock.instant())
        .executeUpdate();
  }

  /**
   * What was found there. It is done if that is the face that should stand there by now; what was
   * opened meanwhile stays open.
   *
   * @param written the tag of the face that stands there, as far as it is ours
   * @param again whether it has to be written once more whatever its tag
   */
  public void found(
      Copy copy, String stands, Optional<String> etag, Optional<String> written, boolean again) {
    CopyEntity one = locks.row(CopyEntity.class, new CopyEntity.Key(copy.outlet(), copy.entry()));
    Instant now = clock.instant();
    boolean done = Objects.equals(one.wanted, written.orElse(null));
    // A look that was asked for meanwhile, as by a decision, is still to come.
    one.look &= !copy.look();
    one.stands = stands;
    one.etag = etag.orElse(null);
    one.written = written.orElse(null);
    one.attempt = null;
    one.attemptTag = null;
    one.fault = null;
    one.faultWords = null;
    one.dueAt = again || one.wanted == null || one.look ? now : done ? null : later(one.dueAt, now);
    one.state = one.wanted == null ? State.ASKED_OFF : again || !done ? State.WAITS : State.SENT;
    if (!again) {
      one.tries = 0;
      one.sentAt = now;
      one.openSince = done ? null : one.openSince;
    }
    kept.flush();
    kept.detach(one);
  }

  private static Instant later(Instant due, Instant now) {
    Instant soon = now.plus(BREATH);
    return due == null || due.isBefore(soon) ? soon : due;
  }

  /** Every line that we composed for whomever of this record, here or in another calendar. */
  public Set<String> composed(Copy copy, ZoneId zone) {
    Set<String> found = new HashSet<>();
    for (String content : entries.contents(copy.record())) {
      Face.parse(content).text().lines().map(String::strip).forEach(found::add);
    }
    List<Copy> all =
        copies(
            kept.createQuery("from CopyEntity where holds(:entries, entry)", CopyEntity.class)
                .setParameter("entries", entries.of(copy.record()).toArray(Long[]::new)));
    for (Copy other : all) {
      if (other.outlet() != copy.outlet() || other.entry() != copy.entry()) {
        Stream.of(other.stands(), other.attempt())
            .flatMap(text -> other.content(text, zone).stream())
            .forEach(content -> content.text().lines().map(String::strip).forEach(found::add));
      }
    }
    found.remove("");
    return found;
  }

  /** Nothing is there: what was written did not arrive, or was taken off and is put back. */
  public void anew(Copy copy) {
    change(
            copy,
            """
            stands = null, etag = null, written = null, attempt = null, attemptTag = null,
              look = false, state = WAITS, dueAt = :now, leftOff = false
            """)
        .setParameter("now", clock.instant())
        .executeUpdate();
  }

  /** Somebody took it off there, and it stays off for the time being. */
  public void takenOffThere(Copy copy) {
    change(
            copy,
            """
            state = TAKEN_OFF_THERE, stands = null, etag = null, attempt = null,
              attemptTag = null, look = false, openSince = null, tries = 0,
              dueAt = case when wanted is not distinct from :wanted then null else cast(:now as Instant) end
            """)
        .setParameter("wanted", copy.wanted().orElse(null))
        .setParameter("now", clock.instant())
        .executeUpdate();
  }

  /** Whoever's it is took it off there, and somebody said that it stays so. */
  public void leaveOff(Copy copy) {
    change(
            copy,
            """
            leftOff = true, dueAt = null, openSince = null,
              state = case when wanted is null then :off else :there end
            """)
        .setParameter("off", State.OFF)
        .setParameter("there", State.TAKEN_OFF_THERE)
        .executeUpdate();
  }

  /** All of a calendar's are opened once more, whichever change they were opened by. */
  public void openAnew(long outlet) {
    kept.createQuery("update CopyEntity set openedNo = 0 where outlet = :outlet")
        .setParameter("outlet", outlet)
        .executeUpdate();
  }

  /** It has to be looked at. */
  public void look(long outlet, long entry) {
    change(outlet, entry, "look = true, dueAt = :now")
        .setParameter("now", clock.instant())
        .executeUpdate();
  }

  /** It did not go; it is tried again later. */
  public void later(Copy copy, String fault, String words, Duration wait, boolean refused) {
    change(
            copy,
            """
            tries = tries + 1, fault = :fault, faultWords = :words, dueAt = :then,
              state = coalesce(:refused, state)
            """)
        .setParameter("fault", fault)
        .setParameter("words", words)
        .setParameter("then", clock.instant().plus(wait))
        .setParameter("refused", refused ? State.REFUSED : null)
        .executeUpdate();
  }

  /** What stands there is left as it is: nothing of a link's goes out any more. */
  public void leave(long link) {
    kept.createQuery(
            "update CopyEntity set dueAt = null, openSince = null, state = OFF" + OF_A_LINK)
        .setParameter("link", link)
        .executeUpdate();
  }

  /** Whatever of a link's did not go is tried at once. */
  public void tryAgain(long link) {
    kept.createQuery(
            "update CopyEntity set dueAt = :now"
                + OF_A_LINK
                + " and dueAt is not null and fault is not null")
        .setParameter("now", clock.instant())
        .setParameter("link", link)
        .executeUpdate();
  }

  /** Whether nothing stands, or may stand, in a calendar any more. */
  public boolean isOff(long outlet) {
    return kept.createQuery(
                "select count(*) from CopyEntity where outlet = :outlet and state <> OFF",
                Long.class)
            .setParameter("outlet", outlet)
            .getSingleResult()
        == 0;
  }

  /** What stands, or may stand, in a link's calendars. */
  public List<Copy> standing(long link) {
    return copies(
        kept.createQuery(
                "from CopyEntity" + OF_A_LINK + " and coalesce(stands, attempt, '') <> ''",
                CopyEntity.class)
            .setParameter("link", link));
  }
}
