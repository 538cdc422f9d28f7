package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.PersonId;
import mellowrota.core.sight.Face;
import mellowrota.core.sync.Answer;
import mellowrota.core.sync.Content;
import mellowrota.core.sync.Edit;
import mellowrota.core.sync.Hold;
import mellowrota.core.sync.Merge;
import mellowrota.core.sync.Part;
import mellowrota.server.ical.CopyText;
import mellowrota.server.links.store.Changes;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Finds out what an entry that stands there means: what was written arrived, somebody changed it,
 * or it is gone; and keeps what becomes of it.
 */
@Component
@RequiredArgsConstructor
class RemoteChanges {

  private final Host host;
  private final CopyStore copies;
  private final LinkLeases leases;
  private final Changes changes;
  private final RemoteEdits remoteEdits;
  private final Worlds worlds;
  private final TransactionTemplate transaction;

  /** Looks what stands there and settles it. */
  void settle(LinkLeases.Lease round, CopyStore.Copy copy, Optional<WantedEntry> ours)
      throws OutsideFault {
    settle(round, copy, ours, host.get(round.account(), copy.href()));
  }

  /** Settles what was seen there; empty: nothing stands there. */
  void settle(
      LinkLeases.Lease round,
      CopyStore.Copy copy,
      Optional<WantedEntry> ours,
      Optional<Host.Standing> standing)
      throws OutsideFault {
    if (standing.isEmpty()) {
      isNotThere(round, copy, ours);
      return;
    }
    if (ours.isPresent() && standsAsWritten(copy, ours.get(), standing.get())) {
      // Lost with the process, it is found again.
      round.keepWithNext(
          () ->
              copies.found(
                  copy, standing.get().text(), standing.get().etag(), copy.attemptTag(), false));
      return;
    }
    ZoneId zone = zone();
    Optional<CopyText.Read> theirs = CopyText.read(standing.get().text(), copy.uid(), zone);
    Optional<Content> attempt = copy.content(copy.attempt(), zone);
    Optional<Content> stood = copy.content(copy.stands(), zone);
    if (theirs.isEmpty()) {
      unreadable(round, copy, standing.get());
      return;
    }
    Content seen = theirs.get().content();
    Content before =
        stood.or(() -> attempt).or(() -> ours.map(one -> one.content(zone))).orElse(seen);
    // Programs that change an entry often leave our marks of its last change as they were.
    boolean marked =
        copy.attempt().isPresent()
            && CopyText.marks(standing.get().text()).equals(CopyText.marks(copy.attempt().get()))
            && !copy.stands().map(CopyText::marks).equals(copy.attempt().map(CopyText::marks));
    Content sent =
        attempt.isEmpty()
            ? before
            : marked ? attempt.get() : Merge.sent(before, attempt.get(), seen);
    boolean asBefore =
        copy.stands().equals(Optional.of(standing.get().text()))
            && !copy.attempt().equals(copy.stands());
    boolean arrived =
        !asBefore && attempt.filter(one -> marked || one.agreesBut(seen, sent)).isPresent();
    Optional<String> written = arrived ? copy.attemptTag() : copy.written();
    Content there = own(copy, ours, sent, seen);
    if (ours.isEmpty()) {
      takeOffChanged(round, copy, standing.get(), sent, there);
      return;
    }
    absorb(
        round,
        copy,
        ours.get(),
        standing.get(),
        sent,
        there,
        written,
        theirs.get().repeats(),
        !there.equals(seen));
  }

  /** Without lines that we composed for whomever else: they are nobody's note (SIGHT 11). */
  private Content own(
      CopyStore.Copy copy, Optional<WantedEntry> ours, Content sent, Content there) {
    if (there.text().equals(sent.text())) {
      return there;
    }
    Set<String> composed = copies.composed(copy, zone());
    composed.removeAll(sent.text().lines().toList());
    ours.ifPresent(one -> composed.removeAll(one.content(zone()).text().lines().toList()));
    return there.without(composed);
  }

  /** To the letter what was just written, which is what should stand there: nothing to compare. */
  private static boolean standsAsWritten(
      CopyStore.Copy copy, WantedEntry ours, Host.Standing standing) {
    return !copy.look()
        && copy.attempt().equals(Optional.of(standing.text()))
        && copy.attemptTag().equals(Optional.of(ours.tag()))
        && !copy.attempt().equals(copy.stands());
  }

  /** What was changed there is taken, proposed or put back; what stands there is kept as seen. */
  private void absorb(
      LinkLeases.Lease round,
      CopyStore.Copy copy,
      WantedEntry ours,
      Host.Standing standing,
      Content sent,
      Content there,
      Optional<String> written,
      boolean repeats,
      boolean held) {
    World world = worlds.now();
    Optional<PersonId> person = round.link().person();
    Answer.Rights rights = remoteEdits.rights(world, person, copy);
    ZoneId zone = world.house().zone();
    Content wanted = Hold.on(ours.content(zone), changes.holds(copy, zone));
    Merge merge = Merge.of(sent, there, wanted, rights);
    List<Changes.Fresh> found = new ArrayList<>();
    for (Edit edit : merge.edits()) {
      found.add(answered(person, copy, ours, standing, edit));
    }
    if (repeats) {
      found.add(
          new Changes.Fresh(
              "REPEATS",
              "once",
              say("links.repeating"),
              "once",
              Optional.of(standing.text()),
              Optional.empty(),
              Changes.State.PUT_BACK,
              false,
              say("links.it-was-set-to"),
              Optional.empty()));
    }
    if (held) {
      found.add(
          new Changes.Fresh(
              "TEXT",
              "",
              "",
              "",
              Optional.empty(),
              Optional.empty(),
              Changes.State.PUT_BACK,
              false,
              say("links.it-contained-text-of"),
              Optional.empty()));
    }
    boolean again =
        merge.write().isPresent()
            || held
            || repeats
            || !written.equals(Optional.of(ours.tag()))
            || found.stream().anyMatch(one -> one.state() != Changes.State.PROPOSED);
    leases.keep(
        round,
        () -> {
          found.stream()
              .filter(one -> one.state() != Changes.State.TAKEN)
              .forEach(one -> changes.keep(copy, one));
          copies.found(
              copy,
              standing.text(),
              standing.etag(),
              held || repeats || merge.write().isPresent() ? Optional.empty() : written,
              again);
        });
  }

  private Changes.Fresh answered(
      Optional<PersonId> person,
      CopyStore.Copy copy,
      WantedEntry ours,
      Host.Standing standing,
      Edit edit) {
    Optional<String> theirsText = Optional.of(standing.text());
    Optional<String> oursText = Optional.of(ours.text());
    if (edit.answer() == Answer.TAKE) {
      String words = "";
      try {
        Optional<Changes.Fresh> taken =
            transaction.execute(status -> taken(person.orElseThrow(), copy, ours, standing, edit));
        if (taken.isPresent()) {
          return taken.get();
        }
        words = say("links.the-time-moved-there");
      } catch (Problem problem) {
        words = RemoteEdits.why(problem);
      }
      return Changes.fresh(
          edit, theirsText, oursText, Changes.State.PROPOSED, words, Optional.empty());
    }
    boolean proposed = edit.answer() == Answer.PROPOSE;
    return Changes.fresh(
        edit,
        theirsText,
        oursText,
        proposed ? Changes.State.PROPOSED : Changes.State.PUT_BACK,
        proposed && !edit.standsThere()
            ? say("links.it-was-changed-here-too")
            : proposed ? "" : say("links.this-may-not-be-changed"),
        Optional.empty());
  }

  /** The act and that it was taken are kept together: whatever dies, both are known or neither. */
  private Optional<Changes.Fresh> taken(
      PersonId person, CopyStore.Copy copy, WantedEntry ours, Host.Standing standing, Edit edit) {
    Optional<Changes.Fresh> found =
        take(person, copy, standing, edit)
            .map(
                act ->
                    Changes.fresh(
                        edit,
                        Optional.of(standing.text()),
                        Optional.of(ours.text()),
                        Changes.State.TAKEN,
                        "",
                        Optional.of(act)));
    found.ifPresent(one -> changes.keep(copy, one));
    return found;
  }

  private Optional<Long> take(
      PersonId person, CopyStore.Copy copy, Host.Standing standing, Edit edit) {
    String key =
        "copy:%d:%d:%s:%s"
            .formatted(copy.outlet(), copy.entry(), edit.part(), Face.digest(standing.text()));
    if (edit.part() == Part.NOTE) {
      return Optional.of(remoteEdits.note(person, copy, (String) edit.theirs(), key));
    }
    return remoteEdits.move(
        person, copy, (EntryTimes) edit.sent(), (EntryTimes) edit.theirs(), key);
  }

  private void unreadable(LinkLeases.Lease round, CopyStore.Copy copy, Host.Standing standing) {
    leases.keep(
        round,
        () -> {
          changes.keep(
              copy,
              new Changes.Fresh(
                  "TEXT",
                  "",
                  "",
                  "",
                  Optional.of(standing.text()),
                  Optional.empty(),
                  Changes.State.PUT_BACK,
                  false,
                  say("links.the-entry-there-can"),
                  Optional.empty()));
          copies.found(copy, standing.text(), standing.etag(), Optional.empty(), true);
        });
  }

  /** It has to go, whatever was changed in it; what was is told. */
  private void takeOffChanged(
      LinkLeases.Lease round,
      CopyStore.Copy copy,
      Host.Standing standing,
      Content sent,
      Content there) {
    Merge merge = Merge.of(sent, there, sent, part -> Answer.PUT_BACK);
    leases.keep(
        round,
        () -> {
          for (Edit edit : merge.edits()) {
            changes.keep(
                copy,
                Changes.fresh(
                    edit,
                    Optional.of(standing.text()),
                    Optional.empty(),
                    Changes.State.PUT_BACK,
                    say("links.it-was-changed-there"),
                    Optional.empty()));
          }
          copies.found(copy, standing.text(), standing.etag(), copy.written(), true);
        });
  }

  void isNotThere(LinkLeases.Lease round, CopyStore.Copy copy, Optional<WantedEntry> ours) {
    boolean stood = copy.stands().isPresent();
    if (ours.isEmpty()) {
      leases.keep(round, () -> copies.off(copy));
      return;
    }
    if (!stood) {
      leases.keep(round, () -> copies.anew(copy));
      return;
    }
    ZoneId zone = zone();
    Content says = ours.get().content(zone);
    Content sent = copy.content(copy.stands(), zone).orElse(says);
    Content wanted = Hold.on(says, changes.holds(copy, zone));
    boolean hasSay = remoteEdits.hasSay(worlds.now(), round.link().person(), copy);
    boolean proposed = Merge.deleted(sent, wanted, hasSay) == Merge.Deleted.PROPOSED;
    leases.keep(
        round,
        () -> {
          changes.keep(
              copy,
              new Changes.Fresh(
                  "DELETED",
                  "there",
                  "taken off",
                  "there",
                  copy.stands(),
                  Optional.of(ours.get().text()),
                  hasSay ? Changes.State.PROPOSED : Changes.State.PUT_BACK,
                  false,
                  proposed
                      ? ""
                      : hasSay ? say("links.it-was-changed-here") : say("links.this-may-not-be"),
                  Optional.empty()));
          if (proposed) {
            copies.takenOffThere(copy);
          } else {
            copies.anew(copy);
          }
        });
  }

  private ZoneId zone() {
    return worlds.now().house().zone();
  }
}
