package mellowrota.server.links;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.Family;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.links.store.OpeningStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Opens copies of what changed. A calendar's change numbers come in the order of commit, so that
 * reading on from the last one misses nothing, and a save has nothing to do with copies.
 */
@Component
@RequiredArgsConstructor
class CopyScheduler {

  private static final int AT_ONCE = 500;

  /** Work that starts by then does not wait. */
  private static final Duration SOON = Duration.ofHours(2);

  /** Calendars that are written to are looked after so many at once. */
  private static final int OUTLETS = 50;

  private final HouseStore house;
  private final OpeningStore store;
  private final LinkStore links;
  private final Worlds worlds;
  private final Clock clock;

  /** For tests; else the house says it. */
  @Value("${mellow.copies.wait:#{null}}")
  private final Optional<Duration> wait;

  private final TransactionTemplate transaction;

  /** Up to which of them it went last, so that all have their turn; 0: from the first on. */
  private long after;

  /** Opens what there is; true while there may be more. */
  boolean some() {
    long from = after;
    return Boolean.TRUE.equals(transaction.execute(status -> openSome(from)));
  }

  /** What a calendar that is written to has not seen yet, up to where its calendar is by now. */
  private record Behind(LinkStore.Outlet outlet, long upTo, List<OpeningStore.Changed> changed) {

    boolean more() {
      return changed.size() == AT_ONCE;
    }

    /** A whole act's changes of a calendar have one number, so that a part is read again. */
    long seen() {
      return more() ? changed.get(AT_ONCE - 1).changeNo() - 1 : upTo;
    }
  }

  private boolean openSome(long from) {
    Map<Long, Long> locked = store.lockBehind(from, OUTLETS);
    after = locked.size() < OUTLETS ? 0 : Collections.max(locked.keySet());
    if (locked.isEmpty()) {
      return from > 0;
    }
    Map<Long, List<OpeningStore.Changed>> changed =
        store.since(locked.keySet(), AT_ONCE).stream()
            .collect(Collectors.groupingBy(OpeningStore.Changed::outlet));
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
    behind.forEach(one -> store.seen(one.outlet().id(), one.seen()));
    return from > 0 || after > 0 || behind.stream().anyMatch(Behind::more);
  }

  /** All in one statement, so that many links cost little beside the saves that feed them. */
  private void open(World world, List<Behind> behind) {
    Instant now = clock.instant();
    long wait = waits();
    List<OpeningStore.Opening> hurrying = new ArrayList<>();
    List<OpeningStore.Opening> waiting = new ArrayList<>();
    for (Behind one : behind) {
      for (OpeningStore.Changed changed : one.changed()) {
        LinkStore.Outlet outlet = one.outlet();
        boolean wanted = wanted(world, outlet, changed);
        boolean soon = soon(changed, now);
        // What stands nowhere yet hides nothing by waiting.
        (!wanted || changed.hurries() || soon ? hurrying : waiting)
            .add(opening(outlet, changed, wanted, now, now.plusMillis(soon ? 0 : wait)));
      }
    }
    if (!hurrying.isEmpty()) {
      store.open(hurrying, now, true);
    }
    if (!waiting.isEmpty()) {
      store.open(waiting, now, false);
    }
  }

  private static OpeningStore.Opening opening(
      LinkStore.Outlet outlet,
      OpeningStore.Changed changed,
      boolean wanted,
      Instant now,
      Instant due) {
    return new OpeningStore.Opening(
        outlet.id(),
        changed.entry(),
        href(outlet, changed.uid()),
        wanted ? changed.etag() : "",
        changed.changeNo(),
        due,
        Duration.between(now, changed.starts()).abs().toSeconds());
  }

  private static boolean wanted(World world, LinkStore.Outlet outlet, OpeningStore.Changed one) {
    boolean past = outlet.from().filter(day -> endsBefore(one, day, world)).isPresent();
    return one.live()
        && !outlet.withdrawn()
        && !outlet.overruled()
        && outlet.takes(one.family())
        && !past;
  }

  private static boolean soon(OpeningStore.Changed one, Instant now) {
    // A ticket begins when it is given, which is mostly now; its work presses when it is due.
    Instant begins = one.family() == Family.GIVEN_DUE ? one.ends() : one.starts();
    return begins.isBefore(now.plus(SOON)) && one.ends().isAfter(now);
  }

  private static boolean endsBefore(OpeningStore.Changed one, LocalDate day, World world) {
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
