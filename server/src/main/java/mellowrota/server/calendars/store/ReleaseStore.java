package mellowrota.server.calendars.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.project.Difference;
import mellowrota.core.project.Release;
import mellowrota.core.sight.Released;
import mellowrota.core.work.RecordId;
import mellowrota.server.calendars.ReleasedText;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Repository;

/** How it stands with the yes to entries whose rules ask for one. */
@Repository
@RequiredArgsConstructor
public class ReleaseStore {

  private final EntityManager kept;
  private final ReleasedText texts;

  /** Of all entries of these records; nothing is read where no rule of the world asks for a yes. */
  public Release.Known of(World world, Collection<RecordId> records) {
    return world.asksForYes() ? of(records) : Release.Known.NONE_WAITS;
  }

  /** Of all entries of these records. */
  public Release.Known of(Collection<RecordId> records) {
    Map<EntryKey, Release> found = new HashMap<>();
    kept.createQuery(
            """
            select record, visit, calendar, family, uid, state, released
            from EntryEntity where holds(:records, record)
            """,
            Standing.class)
        .setParameter("records", records.stream().map(RecordId::value).toArray(Long[]::new))
        .getResultList()
        .forEach(entry -> found.put(entry.key(), release(entry)));
    return key -> found.getOrDefault(key, new Release.Never());
  }

  private record Standing(
      long record,
      int visit,
      long calendar,
      Family family,
      String uid,
      Difference.State state,
      String released) {

    EntryKey key() {
      return EntryEntity.key(record, visit, calendar, family);
    }
  }

  private Release release(Standing entry) {
    Optional<Released> released =
        Optional.ofNullable(entry.released())
            .map(text -> texts.read(entry.key(), entry.uid(), text));
    return switch (entry.state()) {
      // It needed no yes until now: what readers have is what it says.
      case LIVE -> released.<Release>map(Release.Last::new).orElseGet(Release.AsItStands::new);
      case GONE -> released.<Release>map(Release.IfTheSame::new).orElseGet(Release.Never::new);
      case WAITING -> new Release.Never();
    };
  }
}
