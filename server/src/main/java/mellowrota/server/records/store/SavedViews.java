package mellowrota.server.records.store;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import org.springframework.stereotype.Repository;

/** Saved views as they are kept. */
@Repository
@RequiredArgsConstructor
public class SavedViews {

  private final EntityManager kept;

  /**
   * A saved view.
   *
   * @param query as the address of the list has it
   * @param forAll whether everybody in the office has it
   */
  public record Saved(long id, long person, String name, String query, boolean forAll) {}

  /** One's own, and with these also those that are for all, by name. */
  public List<Saved> of(PersonId person, boolean andForAll) {
    return kept
        .createQuery(
            """
            from ViewEntity where person = :person or forAll = true and :andForAll = true
            order by lower(name), id
            """,
            ViewEntity.class)
        .setParameter("person", person.value())
        .setParameter("andForAll", andForAll)
        .getResultList()
        .stream()
        .map(ViewEntity::saved)
        .toList();
  }

  /** Saves one, in place of somebody's own of that name. */
  public Saved save(PersonId person, String name, String query, boolean forAll) {
    // In one statement, since two may save the same at once.
    kept.createQuery(
            """
            insert into ViewEntity (person, name, query, forAll)
            values (:person, :name, :query, :forAll)
            on conflict (person, name)
            do update set query = excluded.query, forAll = excluded.forAll
            """)
        .setParameter("person", person.value())
        .setParameter("name", name)
        .setParameter("query", query)
        .setParameter("forAll", forAll)
        .executeUpdate();
    return of(person, false).stream()
        .filter(one -> one.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  /** Whether somebody's own one was let go. */
  public boolean letGo(PersonId person, long id) {
    Optional<ViewEntity> own =
        Optional.ofNullable(kept.find(ViewEntity.class, id))
            .filter(one -> one.person == person.value());
    own.ifPresent(kept::remove);
    return own.isPresent();
  }
}
