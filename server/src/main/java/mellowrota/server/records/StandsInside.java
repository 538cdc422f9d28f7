package mellowrota.server.records;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;

/** Warns of a kept-back value that stands literally inside a wider detail (SIGHT 12). */
final class StandsInside {

  /** Shorter ones stand in many words by chance. */
  private static final int SHORTEST = 4;

  private StandsInside() {}

  /** Of the details this person sees, both; null where there is nothing to warn of. */
  static List<RecordView.StandsInsideView> of(RecordAccess.Standing standing) {
    World world = standing.world();
    WorkRecord record = standing.record();
    List<DetailDefinition> seen =
        world.details().of(record.kind()).stream()
            .filter(one -> one.typed() && standing.sees(one.key()))
            .filter(one -> record.text(one.key()).isPresent())
            .toList();
    List<RecordView.StandsInsideView> found = new ArrayList<>();
    for (DetailDefinition kept : seen) {
      for (DetailDefinition wider : seen) {
        ForSet narrow = world.details().forWhom(record, kept.key());
        ForSet wide = world.details().forWhom(record, wider.key());
        if ((wide.bits() & ~narrow.bits()) != 0
            && stands(text(record, kept), text(record, wider))) {
          found.add(
              new RecordView.StandsInsideView(
                  kept.label(), wider.label(), ForWords.of(wide, world.roles())));
        }
      }
    }
    return found.isEmpty() ? null : found;
  }

  private static String text(WorkRecord record, DetailDefinition detail) {
    return record.text(detail.key()).orElse("").toLowerCase(Locale.ROOT);
  }

  private static boolean stands(String value, String inside) {
    return value.length() >= SHORTEST && inside.contains(value);
  }
}
