package mellowrota.server.links;

import java.time.Clock;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Ends links once nothing of ours stands there any more. */
@Component
@RequiredArgsConstructor
class LinkEndings {

  private final LinkStore links;
  private final CopyStore copies;
  private final CalendarStore calendars;
  private final Clock clock;

  /** Its password goes with it. */
  @Transactional
  public void some() {
    for (long link : links.ending()) {
      if (links.outlets(link).stream().allMatch(this::isOff)) {
        links.ended(link, clock.instant());
      }
    }
  }

  /** Whether it has seen all of our calendar and nothing of it stands there any more. */
  private boolean isOff(LinkStore.Outlet outlet) {
    boolean behind =
        outlet
            .rendering()
            .filter(one -> calendars.changeNos(List.of(one)).get(one) > outlet.seenNo())
            .isPresent();
    return !behind && copies.isOff(outlet.id());
  }
}
