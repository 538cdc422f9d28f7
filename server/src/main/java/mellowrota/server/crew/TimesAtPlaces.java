package mellowrota.server.crew;

import java.time.ZoneId;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Act;

/** Whoever keeps times of work in the zone of its place. */
public interface TimesAtPlaces {

  /** What is ahead there keeps its local times in the new zone, as a part of the act. */
  void rezone(Act act, PlaceId place, ZoneId from, ZoneId to);

  /** Takes back what an act did to times, as far as nobody changed them since. */
  void takeBack(Act act, long undone);
}
