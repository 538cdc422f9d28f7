package mellowrota.server.records;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;

/** Records that come in from elsewhere, many in one act, each known there by an id of its own. */
@Service
@RequiredArgsConstructor
public class IncomingRecords {

  private final Records records;
  private final RecordStore store;
  private final RecordAccess access;
  private final SourceIds sources;

  /** The records that came from there and that this person may open, by their ids there. */
  public Map<String, RecordId> known(
      World world, Person asker, String source, Collection<String> ids) {
    return sources.known(world, asker, source, ids);
  }

  /** Until the end of the act nobody else takes rows by these ids. */
  public void lock(String source, Collection<String> ids) {
    sources.lock(source, ids);
  }

  /** The records with these numbers as they are now, for {@link #judge}. */
  public Map<RecordId, WorkRecord> load(Collection<RecordId> ids) {
    Map<RecordId, WorkRecord> found = new HashMap<>();
    store.load(ids, false).forEach(record -> found.put(record.id(), record));
    return found;
  }

  /**
   * Tells whether somebody may make or change a record so; nothing is kept.
   *
   * @param known the record to change; empty for a new one
   * @return the record as it would be
   * @throws Problem with the faults of the body, or where the asker may not
   */
  public WorkRecord judge(
      World world, Person asker, Optional<WorkRecord> known, JsonNode body, Instant now) {
    RecordInput input = RecordInput.of(body, world, asker);
    if (known.isEmpty()) {
      WorkRecord made = input.make(asker.id(), now);
      records.requireMayMake(world, asker, made);
      return made;
    }
    RecordAccess.Standing standing = access.standing(world, asker, known.get());
    input.refuseWhatIsSettled();
    Permits.require(standing, input.named());
    return input.apply(known.get(), now);
  }

  /** Makes or changes one of them in an act. */
  public RecordId take(Act act, World world, Optional<RecordId> known, JsonNode body) {
    Records.Outcome outcome = new Records.Outcome();
    if (known.isPresent()) {
      records.change(act, world, known.get(), "*", body, outcome);
    } else {
      records.create(act, world, Optional.empty(), body, outcome);
    }
    return outcome.records().get(0);
  }
}
