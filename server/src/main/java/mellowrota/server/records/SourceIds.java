package mellowrota.server.records;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.Locks;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/**
 * Records by the ids of where they came from. Whose record somebody may not open is not there for
 * them (SIGHT 10): the same id then makes one of their own, so no key of the database tells it.
 */
@Component
@RequiredArgsConstructor
class SourceIds {

  private final OpenableRecords opens;
  private final Locks locks;

  /** Until the end of the act nobody else makes records by these ids. */
  void lock(String source, Collection<String> ids) {
    locks.alone(ids.stream().map(id -> source + '\n' + id).toList());
  }

  /** Those that this person may open, by their ids there; of several the first. */
  Map<String, RecordId> known(World world, Person asker, String source, Collection<String> ids) {
    record Known(String sourceId, long id) {}
    Map<String, RecordId> found = new HashMap<>();
    opens
        .query(
            Known.class,
            "select r.source_id, r.id from"
                + OpenableRecords.RECORDS
                + " where r.source = :source and r.source_id = any(:ids) and"
                + OpenableRecords.MAY_OPEN
                + " order by r.id",
            world,
            asker)
        .setParameter("source", source)
        .setParameter("ids", ids.toArray(String[]::new))
        .getResultList()
        .forEach(one -> found.putIfAbsent(one.sourceId(), RecordId.of(one.id())));
    return found;
  }
}
