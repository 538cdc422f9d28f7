package mellowrota.server.sight.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.List;
import java.util.Optional;

/** A wording. Its number is taken before, since one that was taken out comes back under it. */
@Entity
@Table(name = "wording")
final class WordingEntity {

  @Id long id;
  String name;
  String title;
  String place;
  String text;
  String categories;
  String fixed;
  @Version Long version;

  protected WordingEntity() {}

  WordingEntity(long id) {
    this.id = id;
  }

  void become(SetStore.OneWording one) {
    name = one.name();
    title = one.title();
    place = one.place();
    text = one.text();
    categories = String.join(",", one.categories());
    fixed = one.fixed().orElse(null);
  }

  SetStore.OneWording wording() {
    return new SetStore.OneWording(
        id,
        false,
        name,
        title,
        place,
        text,
        categories.isEmpty() ? List.of() : List.of(categories.split(",")),
        Optional.ofNullable(fixed));
  }
}
