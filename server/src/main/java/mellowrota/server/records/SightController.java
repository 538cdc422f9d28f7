package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who sees what of a record: its details by audiences, and the entry as each of them gets it. */
@RestController
@RequestMapping("/api/v1/records/{id}/sight")
@RequiredArgsConstructor
class SightController {

  private final Worlds worlds;
  private final RecordStore store;
  private final RecordAccess access;
  private final Sights sights;

  @GetMapping
  @Operation(summary = "Details by reader, and the entries as each group of readers gets them")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  SightViews.SightView sight(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    WorkRecord record = store.find(RecordId.of(id), false).orElseThrow(Problem::notFound);
    RecordAccess.Standing standing = access.standing(world, me, record);
    if (!standing.opens()) {
      throw Problem.notFound();
    }
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("records.only-coordinators-can-see"));
    }
    return sights.of(standing);
  }
}
