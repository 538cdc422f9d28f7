package mellowrota.server.links;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.ical.CopyText;
import mellowrota.server.links.store.Changes;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/**
 * What of ours stands in a link's calendars, as it was last seen, told as its asker may know it
 * now.
 */
@Component
@RequiredArgsConstructor
class StandingEntries {

  private final CopyStore copies;
  private final RecordStore records;
  private final RecordAccess access;

  @Schema(name = "LinkStanding")
  record StandingView(
      String title,
      @Schema(description = "As it is there; empty where the caller may not see it") String when) {}

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<StandingView> of(World world, Person asker, LinkStore.Link link) {
    List<CopyStore.Copy> kept = copies.standing(link.id());
    Map<RecordId, RecordAccess.Standing> towards = new LinkedHashMap<>();
    access
        .standings(
            world,
            asker,
            records.load(kept.stream().map(CopyStore.Copy::record).distinct().toList(), false))
        .forEach(one -> towards.put(one.record().id(), one));
    boolean own = link.person().filter(asker.id()::equals).isPresent();
    List<StandingView> told = new ArrayList<>();
    for (CopyStore.Copy one : kept) {
      RecordAccess.Standing standing = towards.get(one.record());
      String when =
          CopyText.read(
                  one.stands().or(one::attempt).orElseThrow(), one.uid(), world.house().zone())
              .filter(read -> own && standing.opens())
              .map(read -> Changes.words(read.content().times()))
              .orElse("");
      told.add(new StandingView(CopiesController.title(standing), when));
    }
    return told;
  }
}
