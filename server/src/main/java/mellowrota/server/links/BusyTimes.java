package mellowrota.server.links;

import java.net.URI;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.sight.Face;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.ical.BusyReader;
import mellowrota.server.ical.CopyText;
import mellowrota.server.links.store.BusyStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;

/** When somebody is busy outside: of what stands there, only its times are kept. */
@Component
@RequiredArgsConstructor
class BusyTimes {

  private final Host host;
  private final Worlds worlds;
  private final BusyStore store;
  private final Entries entries;
  private final Clock clock;

  /** What one entry takes of somebody's time. */
  record Taken(String href, String uid, List<BusyReader.Span> spans) {}

  /**
   * What was read.
   *
   * @param gone whose times are known no longer; where {@code whole}, all that was not read
   */
  record Found(List<Taken> taken, List<String> gone, boolean whole) {}

  Found find(
      Host.Account account,
      LinkStore.Outlet outlet,
      Map<URI, Optional<String>> tags,
      List<URI> removed,
      boolean whole)
      throws OutsideFault {
    List<Taken> found = new ArrayList<>();
    for (Map.Entry<URI, String> one :
        host.texts(account, outlet.href(), tags.keySet()).entrySet()) {
      BusyReader.Read read =
          BusyReader.read(one.getValue(), worlds.now().house().zone(), clock.instant());
      String uid = CopyText.mark(one.getValue()).orElse(read.uid());
      found.add(new Taken(one.getKey().getPath(), uid, read.spans()));
    }
    return new Found(found, removed.stream().map(URI::getPath).toList(), whole);
  }

  /**
   * Keeps it; an entry of ours, known by its UID or mark wherever it stands, takes nobody's time
   * twice.
   */
  void keep(LinkStore.Outlet outlet, Found found) {
    if (found.whole()) {
      store.forget(outlet.id());
    }
    List<String> gone = new ArrayList<>(found.gone());
    found.taken().forEach(one -> gone.add(one.href()));
    store.forget(outlet.id(), gone);
    for (Taken one : found.taken()) {
      if (!entries.isOurs(one.uid())) {
        String hash = Face.digest(one.uid());
        one.spans().forEach(span -> store.add(outlet.id(), one.href(), hash, span));
      }
    }
  }
}
