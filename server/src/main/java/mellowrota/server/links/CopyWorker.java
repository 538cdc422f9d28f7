package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.time.ZoneId;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.sync.Content;
import mellowrota.core.sync.Hold;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.ical.CopyText;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.links.store.Changes;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;

/**
 * Brings one copy after another nearer to what should stand there: one request that writes, or one
 * look at what stands there. Whatever ends it in between, the next one goes on from what is kept:
 * before anything is written it is kept that it may arrive, and what may have arrived is looked at
 * before anything else is written. The address and the UID never change.
 */
@Component
@RequiredArgsConstructor
class CopyWorker {

  /** After so many tries a person is told. */
  private static final int TRIES = 5;

  private static final String MINE = say("links.changes-you-make-here");
  private static final String NOBODYS = say("links.changes-made-here-are");

  private final Host host;
  private final CopyStore copies;
  private final LinkLeases leases;
  private final RemoteChanges remoteChanges;
  private final Changes changes;
  private final Faces faces;
  private final IcalendarWriter writer;
  private final Worlds worlds;
  private final Backoff backoff;

  /** What to ask the host next, with all that has to be kept before it kept. */
  sealed interface Plan {
    CopyStore.Copy copy();

    /** Whether the host is asked anything. */
    default boolean asks() {
      return true;
    }
  }

  private record Look(CopyStore.Copy copy, Optional<WantedEntry> ours) implements Plan {}

  private record Create(CopyStore.Copy copy, WantedEntry ours) implements Plan {}

  private record Change(CopyStore.Copy copy, WantedEntry ours, String stood, String text)
      implements Plan {}

  private record TakeOff(CopyStore.Copy copy) implements Plan {}

  /** Nothing has to be asked. */
  private record Nothing(CopyStore.Copy copy) implements Plan {
    @Override
    public boolean asks() {
      return false;
    }
  }

  /**
   * Keeps what the last step came to and plans the next: one transaction a copy, since what was
   * found may be lost with the process, and is then found again.
   *
   * @return empty: nothing is due
   */
  Optional<Plan> next(LinkLeases.Lease round) {
    return leases.next(round, () -> copies.due(round.link().id()).map(copy -> plan(round, copy)));
  }

  private Plan plan(LinkLeases.Lease round, CopyStore.Copy copy) {
    Optional<WantedEntry> ours = ours(round, copy);
    if (copy.look() || copy.attempt().isPresent()) {
      return new Look(copy, ours);
    }
    if (copy.stands().isEmpty()) {
      if (ours.isEmpty()) {
        copies.off(copy);
        return new Nothing(copy);
      }
      Optional<String> tag = Optional.of(ours.get().tag());
      return new Create(attempted(copy, ours.get().text(), tag), ours.get());
    }
    return ours.isEmpty()
        ? new TakeOff(attempted(copy, "", Optional.empty()))
        : change(copy, ours.get());
  }

  private Plan change(CopyStore.Copy copy, WantedEntry ours) {
    String stood = copy.stands().orElseThrow();
    ZoneId zone = zone();
    Content says = ours.content(zone);
    Content wanted = Hold.on(says, changes.holds(copy, zone));
    boolean same = copy.content(copy.stands(), zone).filter(one -> one.agrees(wanted)).isPresent();
    if (same && copy.written().equals(Optional.of(ours.tag()))) {
      copies.found(copy, stood, copy.etag(), copy.written(), false);
      return new Nothing(copy);
    }
    String text = CopyText.over(ours.text(), stood, wanted, says);
    return new Change(attempted(copy, text, Optional.of(ours.tag())), ours, stood, text);
  }

  /** Keeps what is about to be written, before it is. */
  private CopyStore.Copy attempted(CopyStore.Copy copy, String text, Optional<String> tag) {
    copies.attempts(copy, text, tag);
    return copy.withAttempt(Optional.of(text)).withAttemptTag(tag);
  }

  /**
   * Asks the host what was planned; faults of this copy alone are kept with it, others are the
   * caller's.
   *
   * @return whether the host answered
   */
  boolean step(LinkLeases.Lease round, Plan plan) throws OutsideFault {
    CopyStore.Copy copy = plan.copy();
    try {
      ask(round, plan);
      return true;
    } catch (OutsideFault fault) {
      if (fault.isOfTheAccount()) {
        throw fault;
      }
      boolean lost = fault.kind() == OutsideFault.Kind.ANSWER_LOST;
      boolean refused = !lost && copy.tries() + 1 >= TRIES;
      leases.keep(
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

  private void ask(LinkLeases.Lease round, Plan plan) throws OutsideFault {
    if (plan instanceof Look look) {
      remoteChanges.settle(round, look.copy(), look.ours());
    } else if (plan instanceof Create create) {
      create(round, create.copy(), create.ours());
    } else if (plan instanceof Change change) {
      change(round, change);
    } else if (plan instanceof TakeOff off) {
      takeOff(round, off.copy());
    }
  }

  private void create(LinkLeases.Lease round, CopyStore.Copy copy, WantedEntry ours)
      throws OutsideFault {
    boolean refused =
        host.create(round.account(), copy.href(), ours.text()) == Host.Written.OTHERWISE;
    Optional<Host.Standing> standing = host.get(round.account(), copy.href());
    if (standing.isPresent()) {
      remoteChanges.settle(round, copy, Optional.of(ours), standing);
      return;
    }
    if (refused) {
      leases.keep(round, () -> copies.anew(copy));
      throw OutsideFault.refused(say("links.the-server-refuses-this"));
    }
    // The host took it, so it stood there, and somebody has taken it off since.
    leases.keep(
        round,
        () -> copies.found(copy, ours.text(), Optional.empty(), Optional.of(ours.tag()), true));
    remoteChanges.isNotThere(
        round, copies.find(copy.outlet(), copy.entry()).orElseThrow(), Optional.of(ours));
  }

  private void takeOff(LinkLeases.Lease round, CopyStore.Copy copy) throws OutsideFault {
    if (host.delete(round.account(), copy.href(), copy.etag()) == Host.Written.DONE) {
      leases.keep(round, () -> copies.off(copy));
    } else {
      remoteChanges.settle(round, copy, Optional.empty());
    }
  }

  private void change(LinkLeases.Lease round, Change change) throws OutsideFault {
    CopyStore.Copy copy = change.copy();
    if (copy.etag().isEmpty()) {
      // Nothing to make a condition of: what stands there is looked at right before.
      Optional<Host.Standing> now = host.get(round.account(), copy.href());
      if (now.isEmpty() || !now.get().text().equals(change.stood())) {
        remoteChanges.settle(round, copy, Optional.of(change.ours()), now);
        return;
      }
    }
    host.change(round.account(), copy.href(), change.text(), copy.etag());
    remoteChanges.settle(round, copy, Optional.of(change.ours()));
  }

  private ZoneId zone() {
    return worlds.now().house().zone();
  }

  private Optional<WantedEntry> ours(LinkLeases.Lease round, CopyStore.Copy copy) {
    if (copy.wanted().isEmpty() || copy.rendering().isEmpty()) {
      return Optional.empty();
    }
    return faces
        .of(copy.rendering().get(), copy.entry())
        .filter(Faces.Kept::live)
        .map(
            face ->
                new WantedEntry(
                    face.etag(),
                    CopyText.about(
                        writer.write(
                            face.written(worlds.now().calendars().opens(copy.rendering().get()))),
                        round.link().person().isPresent() ? MINE : NOBODYS),
                    face.uid()));
  }
}
