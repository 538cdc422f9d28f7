package mellowrota.server.records;

import java.time.ZoneId;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.RecordFields;
import mellowrota.core.change.Undo;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Rezone;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.crew.TimesAtPlaces;
import mellowrota.server.records.store.RecordSets;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;

/** Work that follows the zone of its place. */
@Component
@RequiredArgsConstructor
class PlaceTimes implements TimesAtPlaces {

  private final Worlds worlds;
  private final RecordSets sets;
  private final RecordStore store;
  private final Records records;

  @Override
  public void rezone(Act act, PlaceId place, ZoneId from, ZoneId to) {
    World world = worlds.locked(act.worldVersion());
    Rezone rezone = new Rezone(from, to, act.at());
    for (WorkRecord before : store.load(sets.ahead(place, from, act.at()), true)) {
      records.save(act, world, before, rezone.of(before), "");
    }
  }

  @Override
  public void takeBack(Act act, long undone) {
    World world = worlds.locked(act.worldVersion());
    for (WorkRecord now : store.load(store.changedBy(undone), true)) {
      Undo undo = Undoing.of(store.changes(undone, now.id()), now);
      records.save(act, world, now, RecordFields.apply(now, undo.takesBack()), "");
    }
  }
}
