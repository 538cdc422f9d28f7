package mellowrota.server.links;

import java.net.URI;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import org.springframework.stereotype.Component;

/**
 * Reads an outside calendar: by what it says changed, else by its tags, else all of it. Copies that
 * are not as we know them are looked at next; the rest is only asked when it is busy.
 */
@Component
@RequiredArgsConstructor
class OutsideReader {

  private final Host host;
  private final CopyStore copies;
  private final LinkStore links;
  private final BusyTimes busy;
  private final LinkLeases leases;

  /** The calendar of a link that is to be read first, if one is by now. */
  Optional<LinkStore.Due> due(long link) {
    return links.due(link);
  }

  /**
   * What there is to look at.
   *
   * @param whole whether it is all there is, so that what is missing is gone
   */
  private record Seen(
      Map<URI, Optional<String>> tags,
      List<URI> removed,
      boolean whole,
      Optional<String> token,
      Optional<String> ctag) {}

  /** Reads one. */
  void read(LinkLeases.Lease round, LinkStore.Due due) throws OutsideFault {
    LinkStore.Outlet outlet = due.outlet();
    Seen seen = seen(round.account(), outlet);
    Map<String, CopyStore.Copy> known = new HashMap<>();
    copies.of(outlet.id()).forEach(copy -> known.put(copy.href().getPath(), copy));
    Map<URI, Optional<String>> others = new LinkedHashMap<>(seen.tags());
    others.keySet().removeIf(href -> known.containsKey(href.getPath()));
    Optional<BusyTimes.Found> found =
        outlet.readsBusy()
            ? Optional.of(busy.find(round.account(), outlet, others, seen.removed(), seen.whole()))
            : Optional.empty();
    leases.keep(
        round,
        () -> {
          // The calendar's row before its copies', as whoever opens them locks both.
          links.read(due, seen.token(), seen.ctag());
          known.values().stream()
              .filter(copy -> isOtherwise(copy, seen))
              .forEach(copy -> copies.look(copy.outlet(), copy.entry()));
          found.ifPresent(one -> busy.keep(outlet, one));
        });
  }

  /** Whether it stands there otherwise than we know it, or not any more. */
  private static boolean isOtherwise(CopyStore.Copy copy, Seen seen) {
    if (copy.stands().isEmpty()) {
      return false;
    }
    for (Map.Entry<URI, Optional<String>> one : seen.tags().entrySet()) {
      if (one.getKey().getPath().equals(copy.href().getPath())) {
        // Without tags nobody knows, so that it has to be read.
        return one.getValue().isEmpty() || !one.getValue().equals(copy.etag());
      }
    }
    return seen.whole()
        || seen.removed().stream().anyMatch(r -> r.getPath().equals(copy.href().getPath()));
  }

  private Seen seen(Host.Account account, LinkStore.Outlet outlet) throws OutsideFault {
    if (outlet.token().isPresent()) {
      Optional<Host.Changes> changes = host.since(account, outlet.href(), outlet.token().get());
      if (changes.isPresent() && changes.get().token().isPresent()) {
        Host.Changes since = changes.get();
        return new Seen(since.tags(), since.removed(), false, since.token(), Optional.empty());
      }
    }
    Host.Position position = host.position(account, outlet.href());
    boolean same = position.ctag().isPresent() && position.ctag().equals(outlet.ctag());
    if (same && position.token().isEmpty()) {
      return new Seen(Map.of(), List.of(), false, Optional.empty(), position.ctag());
    }
    // The position was taken first: what changes after it is told by the next reading.
    Host.Changes all = host.all(account, outlet.href());
    return new Seen(all.tags(), List.of(), true, position.token(), position.ctag());
  }
}
