package mellowrota.server.records;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.store.RecordStore;
import org.springframework.stereotype.Service;

/**
 * Records as they were at a version, kept in memory: a version of a record never changes. Pages
 * that show thousands of records read only what changed since they were last shown.
 */
@Service
@RequiredArgsConstructor
public class KnownRecords {

  private static final int MOST = 40_000;
  private static final int AT_ONCE = 2_000;

  private record Versioned(long version, WorkRecord record) {}

  private final RecordStore store;
  private final Map<Long, Versioned> known =
      new LinkedHashMap<>(1024, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Versioned> eldest) {
          return size() > MOST;
        }
      };

  /**
   * The records in the order asked for.
   *
   * @param versions by number, as this transaction's snapshot sees them
   */
  public List<WorkRecord> load(Map<Long, Long> versions) {
    Map<Long, WorkRecord> found = new LinkedHashMap<>(versions.size() * 2);
    List<RecordId> missing = new ArrayList<>();
    synchronized (known) {
      versions.forEach(
          (id, version) -> {
            Versioned kept = known.get(id);
            boolean same = kept != null && kept.version() == version;
            found.put(id, same ? kept.record() : null);
            if (!same) {
              missing.add(RecordId.of(id));
            }
          });
    }
    for (int from = 0; from < missing.size(); from += AT_ONCE) {
      List<WorkRecord> loaded =
          store.load(missing.subList(from, Math.min(missing.size(), from + AT_ONCE)), false);
      synchronized (known) {
        for (WorkRecord record : loaded) {
          long id = record.id().value();
          found.put(id, record);
          known.put(id, new Versioned(versions.get(id), record));
        }
      }
    }
    return found.values().stream().filter(record -> record != null).toList();
  }
}
