package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Duration;
import java.util.Optional;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;

/** Margins of a kind, a place or a person; of the house where none of these is named. */
@Entity
@Table(name = "margin_setting")
final class MarginEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  @Enumerated(EnumType.STRING)
  Kind kind;

  Long place;
  Long person;
  Integer beforeMinutes;
  Integer afterMinutes;

  protected MarginEntity() {}

  MarginEntity(Kind kind, Long place, Long person, MarginSetting setting) {
    this.kind = kind;
    this.place = place;
    this.person = person;
    become(setting);
  }

  MarginSetting setting() {
    return new MarginSetting(
        Optional.ofNullable(beforeMinutes).map(Duration::ofMinutes),
        Optional.ofNullable(afterMinutes).map(Duration::ofMinutes));
  }

  final void become(MarginSetting setting) {
    beforeMinutes = setting.before().map(one -> (int) one.toMinutes()).orElse(null);
    afterMinutes = setting.after().map(one -> (int) one.toMinutes()).orElse(null);
  }
}
