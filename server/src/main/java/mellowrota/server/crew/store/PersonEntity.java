package mellowrota.server.crew.store;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;

/** Somebody of the house, with what is settled about them. */
@Entity
@Table(name = "person")
final class PersonEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String name;

  @Enumerated(EnumType.STRING)
  Person.Standing standing;

  @Enumerated(EnumType.STRING)
  @Column(name = "account_right")
  Person.AccountRight right;

  @ElementCollection(fetch = FetchType.EAGER)
  @CollectionTable(name = "coordinates", joinColumns = @JoinColumn(name = "person"))
  @Column(name = "team")
  Set<Long> coordinates = new HashSet<>();

  String ownTitle;

  boolean notAlone;

  String zone;

  Integer contractMinutes;

  LocalDate lastDay;

  @Version long version;

  protected PersonEntity() {}

  PersonEntity(String name, Person.Standing standing, Person.AccountRight right) {
    this.name = name;
    this.standing = standing;
    this.right = right;
  }

  Person person() {
    return new Person(
        PersonId.of(id),
        name,
        standing,
        right,
        coordinates.stream().map(TeamId::of).collect(Collectors.toSet()));
  }

  void become(Person person) {
    name = person.name();
    if (standing == Person.Standing.LEFT && !person.hasLeft()) {
      lastDay = null;
    }
    standing = person.standing();
    right = person.right();
    Set<Long> teams = person.coordinates().stream().map(TeamId::value).collect(Collectors.toSet());
    coordinates.retainAll(teams);
    coordinates.addAll(teams);
  }
}
