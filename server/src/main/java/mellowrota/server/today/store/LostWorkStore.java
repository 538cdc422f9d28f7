package mellowrota.server.today.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Who lost what work and has not seen it yet, as it is kept. */
@Repository
@RequiredArgsConstructor
public class LostWorkStore {

  private final EntityManager kept;

  /**
   * Work that is no longer somebody's.
   *
   * @param day on which it was next; empty: they might not know
   * @param place its name; empty: it has none, or they might not know
   */
  public record Lost(
      long record, Optional<LocalDate> day, Optional<String> place, boolean cancelled) {}

  /** Keeps it in place of what was kept of the same work. */
  public void lost(PersonId person, long act, Instant at, Lost what) {
    @Nullable LostWorkEntity row =
        kept.find(LostWorkEntity.class, new LostWorkEntity.Key(person.value(), what.record()));
    boolean isNew = row == null;
    if (isNew) {
      row = new LostWorkEntity();
      row.person = person.value();
      row.record = what.record();
    }
    row.act = act;
    row.at = at;
    row.day = what.day().orElse(null);
    row.place = what.place().orElse(null);
    row.cancelled = what.cancelled();
    if (isNew) {
      kept.persist(row);
    }
  }

  /** Forgets it of those who have the work again; how many rows there were. */
  public int forget(RecordId record, Collection<PersonId> people) {
    return kept.createQuery(
            "delete from LostWorkEntity where record = :record and person in :people")
        .setParameter("record", record.value())
        .setParameter("people", people.stream().map(PersonId::value).toList())
        .executeUpdate();
  }

  /** What one has not seen yet, the soonest first. */
  public List<Lost> of(PersonId person) {
    return kept.createQuery(
            "from LostWorkEntity where person = :person order by day nulls last, record",
            LostWorkEntity.class)
        .setParameter("person", person.value())
        .getResultStream()
        .map(
            row ->
                new Lost(
                    row.record,
                    Optional.ofNullable(row.day),
                    Optional.ofNullable(row.place),
                    row.cancelled))
        .toList();
  }
}
