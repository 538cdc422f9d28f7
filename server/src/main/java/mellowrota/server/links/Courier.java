package mellowrota.server.links;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.PersonId;
import mellowrota.core.sync.Answer;
import mellowrota.core.sync.Content;
import mellowrota.core.sync.Edit;
import mellowrota.core.sync.Hold;
import mellowrota.core.sync.Merge;
import mellowrota.core.sync.Part;
import mellowrota.server.calendars.Faces;
import mellowrota.server.ical.CopyText;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Brings one copy nearer to what should stand there: one request that writes, or one look at what
 * stands there. Whatever ends it in between, the next one goes on from what is kept: before
 * anything is written it is kept that it may arrive, and what may have arrived is looked at before
 * anything else is written. The address and the UID never change.
 */
@Component
class Courier {

  /** After so many tries a person is told. */
  private static final int TRIES = 5;

  private static final String MINE =
      "what you change here comes into the record as far as your role lets you; the rest is asked"
          + " about, and nothing is lost.";
  private static final String NOBODYS = "what is changed here is put back.";

  private final Host host;
  private final CopyStore copies;
  private final LinkStore links;
  private final Changes changes;
  private final Takings takings;
  private final Faces faces;
  private final IcalendarWriter writer;
  private final Worlds worlds;
  private final Backoff backoff;
  private final TransactionTemplate transaction;

  Courier(
      Host host,
      CopyStore copies,
      LinkStore links,
      Changes changes,
      Takings takings,
      Faces faces,
      IcalendarWriter writer,
      Worlds worlds,
      Backoff backoff,
      PlatformTransactionManager transactions) {
    this.host = host;
    this.copies = copies;
    this.links = links;
    this.changes = changes;
    this.takings = takings;
    this.faces = faces;
    this.writer = writer;
    this.worlds = worlds;
    this.backoff = backoff;
    transaction = new TransactionTemplate(transactions);
  }

  /** Somebody else took the link over meanwhile; what we know of it is old. */
  static final class Overtaken extends RuntimeException {
    private static final long serialVersionUID = 1;

    Overtaken() {
      super("the link was taken over", null, false, false);
    }
  }

  /** A link in somebody's hands. */
  record Round(LinkStore.Link link, Host.Account account, String me) {}

  /** What should stand there. */
  private record Ours(String tag, String text, Content content) {}

  /**
   * Takes one step; faults of this copy alone are kept with it, others are the caller's.
   *
   * @return whether the host answered
   */
  boolean step(Round round, CopyStore.Copy copy) throws OutsideFault {
    try {
      go(round, copy);
      return true;
    } catch (OutsideFault fault) {
      if (fault.isOfTheAccount()) {
        throw fault;
      }
      boolean lost = fault.kind() == OutsideFault.Kind.ANSWER_LOST;
      boolean refused = !lost && copy.tries() + 1 >= TRIES;
      keep(
          round,
          () ->
              copies.later(
                  copy,
                  fault.kind().name(),
                  fault.getMessage(),
                  backoff.after(copy.tries()),
                  refused));
      return !lost;
    }
  }

  private void go(Round round, CopyStore.Copy copy) throws OutsideFault {
    Optional<Ours> ours = ours(round, copy);
    if (copy.look() || copy.attempt().isPresent()) {
      settle(round, copy, ours);
    } else if (ours.isEmpty()) {
      takeOff(round, copy);
    } else if (copy.stands().isEmpty()) {
      String text = ours.get().text();
      keep(round, () -> copies.attempts(copy, text, Optional.of(ours.get().tag())));
      boolean refused = host.create(round.account(), copy.href(), text) == Host.Written.OTHERWISE;
      CopyStore.Copy tried = copies.find(copy.outlet(), copy.entry()).orElseThrow();
      Optional<Host.Standing> standing = host.get(round.account(), copy.href());
      if (refused && standing.isEmpty()) {
        keep(round, () -> copies.anew(tried));
        throw OutsideFault.refused(
            "The host does not take this entry and shows none; it may stand there under another"
                + " name, or the calendar is gone.");
      }
      if (standing.isEmpty()) {
        // The host took it, so it stood there, and somebody has taken it off since.
        keep(
            round,
            () -> copies.found(tried, text, Optional.empty(), Optional.of(ours.get().tag()), true));
      }
      settle(round, copies.find(copy.outlet(), copy.entry()).orElseThrow(), ours, standing);
    } else {
      write(round, copy, ours.get());
    }
  }

  private void takeOff(Round round, CopyStore.Copy copy) throws OutsideFault {
    if (copy.stands().isEmpty()) {
      keep(round, () -> copies.off(copy));
      return;
    }
    keep(round, () -> copies.attempts(copy, "", Optional.empty()));
    if (host.delete(round.account(), copy.href(), copy.etag()) == Host.Written.DONE) {
      keep(round, () -> copies.off(copy));
    } else {
      settle(round, copies.find(copy.outlet(), copy.entry()).orElseThrow(), Optional.empty());
    }
  }

  private void write(Round round, CopyStore.Copy copy, Ours ours) throws OutsideFault {
    String stands = copy.stands().orElseThrow();
    Content wanted = Hold.on(ours.content(), changes.holds(copy, zone()));
    boolean says = content(copy, copy.stands()).filter(one -> one.agrees(wanted)).isPresent();
    if (says && copy.written().equals(Optional.of(ours.tag()))) {
      keep(round, () -> copies.found(copy, stands, copy.etag(), copy.written(), false));
      return;
    }
    String text = CopyText.over(ours.text(), stands, wanted, ours.content());
    keep(round, () -> copies.attempts(copy, text, Optional.of(ours.tag())));
    if (copy.etag().isEmpty()) {
      // Nothing to make a condition of: what stands there is looked at right before.
      Optional<Host.Standing> now = host.get(round.account(), copy.href());
      if (now.isEmpty() || !now.get().text().equals(stands)) {
        settle(
            round, copies.find(copy.outlet(), copy.entry()).orElseThrow(), Optional.of(ours), now);
        return;
      }
    }
    host.change(round.account(), copy.href(), text, copy.etag());
    settle(round, copies.find(copy.outlet(), copy.entry()).orElseThrow(), Optional.of(ours));
  }

  private ZoneId zone() {
    return worlds.now().house().zone();
  }

  private Optional<Ours> ours(Round round, CopyStore.Copy copy) {
    LinkStore.Outlet outlet = links.outlet(copy.outlet()).orElseThrow();
    if (copy.wanted().isEmpty() || outlet.rendering().isEmpty()) {
      return Optional.empty();
    }
    return faces
        .of(outlet.rendering().get(), copy.entry())
        .filter(Faces.Kept::live)
        .flatMap(
            face -> {
              String text =
                  CopyText.about(
                      writer.write(face.uid(), face.sequence(), face.modified(), face.face()),
                      round.link().person().isPresent() ? MINE : NOBODYS);
              return CopyText.read(text, face.uid(), zone())
                  .map(read -> new Ours(face.etag(), text, read.content()));
            });
  }

  /** Keeps something, if the link is still in our hands. */
  private void keep(Round round, Runnable what) {
    transaction.executeWithoutResult(
        status -> {
          if (!links.isOurs(round.link().id(), round.me())) {
            throw new Overtaken();
          }
          what.run();
        });
  }

  // ---- What stands there -----------------------------------------------------------------------

  private void settle(Round round, CopyStore.Copy copy, Optional<Ours> ours) throws OutsideFault {
    settle(round, copy, ours, host.get(round.account(), copy.href()));
  }

  private void settle(
      Round round, CopyStore.Copy copy, Optional<Ours> ours, Optional<Host.Standing> standing)
      throws OutsideFault {
    if (standing.isEmpty()) {
      isNotThere(round, copy, ours);
      return;
    }
    Optional<CopyText.Read> theirs = CopyText.read(standing.get().text(), copy.uid(), zone());
    Optional<Content> attempt = content(copy, copy.attempt());
    Optional<Content> stood = content(copy, copy.stands());
    if (theirs.isEmpty()) {
      unreadable(round, copy, standing.get());
      return;
    }
    Content there = theirs.get().content();
    Content before = stood.or(() -> attempt).or(() -> ours.map(Ours::content)).orElse(there);
    // Programs that change an entry often leave our marks of its last change as they were.
    boolean marked =
        copy.attempt().isPresent()
            && CopyText.marks(standing.get().text()).equals(CopyText.marks(copy.attempt().get()))
            && !copy.stands().map(CopyText::marks).equals(copy.attempt().map(CopyText::marks));
    Content sent =
        attempt.isEmpty()
            ? before
            : marked ? attempt.get() : Merge.sent(before, attempt.get(), there);
    boolean asBefore =
        copy.stands().equals(Optional.of(standing.get().text()))
            && !copy.attempt().equals(copy.stands());
    boolean arrived =
        !asBefore && attempt.filter(one -> marked || one.agreesBut(there, sent)).isPresent();
    Optional<String> written = arrived ? copy.attemptTag() : copy.written();
    if (ours.isEmpty()) {
      takeOffChanged(round, copy, standing.get(), sent, there);
      return;
    }
    absorb(round, copy, ours.get(), standing.get(), sent, there, written, theirs.get().repeats());
  }

  private Optional<Content> content(CopyStore.Copy copy, Optional<String> text) {
    return text.filter(one -> !one.isEmpty())
        .flatMap(one -> CopyText.read(one, copy.uid(), zone()))
        .map(CopyText.Read::content);
  }

  /** What was changed there is taken, proposed or put back; what stands there is kept as seen. */
  private void absorb(
      Round round,
      CopyStore.Copy copy,
      Ours ours,
      Host.Standing standing,
      Content sent,
      Content there,
      Optional<String> written,
      boolean repeats) {
    World world = worlds.now();
    Optional<PersonId> person = round.link().person();
    Answer.Rights rights = takings.rights(world, person, copy);
    Content wanted = Hold.on(ours.content(), changes.holds(copy, world.house().zone()));
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
              "again and again",
              "once",
              Optional.of(standing.text()),
              Optional.empty(),
              Changes.State.PUT_BACK,
              false,
              "It was made to repeat there; each piece of work stands for itself, so it was put"
                  + " back.",
              Optional.empty()));
    }
    boolean again =
        merge.write().isPresent()
            || repeats
            || !written.equals(Optional.of(ours.tag()))
            || found.stream().anyMatch(one -> one.state() != Changes.State.PROPOSED);
    keep(
        round,
        () -> {
          found.stream()
              .filter(one -> one.state() != Changes.State.TAKEN)
              .forEach(one -> changes.keep(copy, one));
          copies.found(
              copy,
              standing.text(),
              standing.etag(),
              repeats || merge.write().isPresent() ? Optional.empty() : written,
              again);
        });
  }

  private Changes.Fresh answered(
      Optional<PersonId> person,
      CopyStore.Copy copy,
      Ours ours,
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
        words =
            "It is not the work's own span that was moved there; somebody has to say what is"
                + " meant.";
      } catch (Problem problem) {
        words = Takings.why(problem);
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
            ? "It was changed here too; ours was written again."
            : proposed ? "" : "This may not be changed there, so it was put back.",
        Optional.empty());
  }

  /** The act and that it was taken are kept together: whatever dies, both are known or neither. */
  private Optional<Changes.Fresh> taken(
      PersonId person, CopyStore.Copy copy, Ours ours, Host.Standing standing, Edit edit) {
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
            .formatted(
                copy.outlet(),
                copy.entry(),
                edit.part(),
                mellowrota.core.sight.Face.digest(standing.text()));
    if (edit.part() == Part.NOTE) {
      return Optional.of(takings.note(person, copy, (String) edit.theirs(), key));
    }
    return takings.move(person, copy, (EntryTimes) edit.sent(), (EntryTimes) edit.theirs(), key);
  }

  private void unreadable(Round round, CopyStore.Copy copy, Host.Standing standing) {
    keep(
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
                  "What stands there cannot be read as this entry any more, so it was put back.",
                  Optional.empty()));
          copies.found(copy, standing.text(), standing.etag(), Optional.empty(), true);
        });
  }

  /** It has to go, whatever was changed in it; what was is told. */
  private void takeOffChanged(
      Round round, CopyStore.Copy copy, Host.Standing standing, Content sent, Content there) {
    Merge merge = Merge.of(sent, there, sent, part -> Answer.PUT_BACK);
    keep(
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
                    "It was changed there before it was taken off.",
                    Optional.empty()));
          }
          copies.found(copy, standing.text(), standing.etag(), copy.written(), true);
        });
  }

  private void isNotThere(Round round, CopyStore.Copy copy, Optional<Ours> ours) {
    boolean stood = copy.stands().isPresent();
    if (ours.isEmpty()) {
      keep(round, () -> copies.off(copy));
      return;
    }
    if (!stood) {
      keep(round, () -> copies.anew(copy));
      return;
    }
    Content sent = content(copy, copy.stands()).orElse(ours.get().content());
    Content wanted = Hold.on(ours.get().content(), changes.holds(copy, zone()));
    boolean hasSay = takings.hasSay(worlds.now(), round.link().person(), copy);
    boolean proposed = Merge.deleted(sent, wanted, hasSay) == Merge.Deleted.PROPOSED;
    keep(
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
                      : hasSay
                          ? "It was changed here too, so it was put back."
                          : "This may not be taken off there, so it was put back.",
                  Optional.empty()));
          if (proposed) {
            copies.takenOffThere(copy);
          } else {
            copies.anew(copy);
          }
        });
  }
}
