package mellowrota.server.calendars.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryKey;
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
    EntryEntity.list(
            kept,
            kept.createQuery("from EntryEntity where any_of(record, :records)", EntryEntity.class)
                .setParameter(
                    "records", records.stream().map(RecordId::value).toArray(Long[]::new)))
        .forEach(one -> found.put(one.key(), release(one)));
    return key -> found.getOrDefault(key, new Release.Never());
  }

  private Release release(EntryEntity one) {
    Optional<Released> released =
        Optional.ofNullable(one.released).map(text -> texts.read(one.key(), one.uid, text));
    return switch (one.state) {
      // It needed no yes until now: what readers have is what it says.
      case LIVE -> released.<Release>map(Release.Last::new).orElseGet(Release.AsItStands::new);
      case GONE -> released.<Release>map(Release.IfTheSame::new).orElseGet(Release.Never::new);
      case WAITING -> new Release.Never();
    };
  }
}
