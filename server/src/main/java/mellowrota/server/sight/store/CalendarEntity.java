package mellowrota.server.sight.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import org.hibernate.annotations.DynamicUpdate;

/** A calendar of the house. Each change writes its own columns, since acts count it on. */
@Entity
@Table(name = "calendar")
@DynamicUpdate
final class CalendarEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  @Enumerated(EnumType.STRING)
  Calendar.Sort sort;

  Long person;
  Long team;
  Long place;
  String name;

  long changeNo;

  long oldestNo;

  protected CalendarEntity() {}

  CalendarEntity(Calendar.Owner owner, String name) {
    sort = owner.sort();
    this.name = name;
    if (owner instanceof Calendar.Owner.Own own) {
      person = own.person().value();
    } else if (owner instanceof Calendar.Owner.OfTeam of) {
      team = of.team().value();
    } else if (owner instanceof Calendar.Owner.OfPlace at) {
      place = at.place();
    }
  }

  Calendar calendar() {
    return new Calendar(CalendarId.of(id), owner(), name);
  }

  private Calendar.Owner owner() {
    return switch (sort) {
      case OWN -> new Calendar.Owner.Own(PersonId.of(person));
      case TEAM -> new Calendar.Owner.OfTeam(TeamId.of(team));
      case MASTER -> new Calendar.Owner.Master();
      case DATE_LIST -> new Calendar.Owner.DateList();
      case PLACE -> new Calendar.Owner.OfPlace(place);
      case NAMED -> new Calendar.Owner.Named();
    };
  }
}
