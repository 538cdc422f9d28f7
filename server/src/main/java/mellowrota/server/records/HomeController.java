package mellowrota.server.records;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Where the address leads that an entry carries (LANDING 19). */
@RestController
@RequiredArgsConstructor
class HomeController {

  private final Worlds worlds;
  private final Entries entries;
  private final RecordStore store;
  private final RecordAccess access;

  @Schema(name = "EntryHome")
  record HomeView(long record) {}

  /** Of an entry that is not there, and of a record that they may not open, all are told alike. */
  @GetMapping("/api/v1/open/{entry}")
  @Operation(summary = "The record that an entry of a calendar is of, by the entry's identity")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  HomeView home(Asker asker, @PathVariable String entry) {
    World world = worlds.now();
    WorkRecord record =
        entries.recordOf(entry).flatMap(id -> store.find(id, false)).orElseThrow(Problem::notFound);
    if (!access.standing(world, world.person(asker.person()), record).opens()) {
      throw Problem.notFound();
    }
    return new HomeView(record.id().value());
  }
}
