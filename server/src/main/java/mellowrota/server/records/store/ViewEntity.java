package mellowrota.server.records.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** A list of records narrowed in a way that is wanted again. */
@Entity
@Table(name = "saved_view")
final class ViewEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long person;
  String name;
  String query;

  boolean forAll;

  SavedViews.Saved saved() {
    return new SavedViews.Saved(id, person, name, query, forAll);
  }
}
