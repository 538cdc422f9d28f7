package mellowrota.server.crew;

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
import java.util.List;
import java.util.Set;
import mellowrota.core.people.Person;
import org.springframework.data.jpa.repository.JpaRepository;

/** The crew as it is kept. */
final class CrewEntities {

  private CrewEntities() {}

  @Entity(name = "person")
  @Table(name = "person")
  static class PersonEntity {
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

    @Version long version;

    protected PersonEntity() {}

    PersonEntity(String name, Person.Standing standing, Person.AccountRight right) {
      this.name = name;
      this.standing = standing;
      this.right = right;
    }

    interface Repository extends JpaRepository<PersonEntity, Long> {}
  }

  @Entity(name = "team")
  @Table(name = "team")
  static class TeamEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    String name;
    String hue;
    @Version long version;

    protected TeamEntity() {}

    TeamEntity(String name, String hue) {
      this.name = name;
      this.hue = hue;
    }

    interface Repository extends JpaRepository<TeamEntity, Long> {
      boolean existsByNameIgnoreCase(String name);
    }
  }

  @Entity(name = "membership")
  @Table(name = "membership")
  static class MembershipEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    Long team;

    @Column(name = "member_person")
    Long memberPerson;

    @Column(name = "member_team")
    Long memberTeam;

    @Column(name = "from_day")
    LocalDate fromDay;

    @Column(name = "until_day")
    LocalDate untilDay;

    protected MembershipEntity() {}

    MembershipEntity(long team, Long memberPerson, Long memberTeam, LocalDate fromDay) {
      this.team = team;
      this.memberPerson = memberPerson;
      this.memberTeam = memberTeam;
      this.fromDay = fromDay;
    }

    boolean isOpenOn(LocalDate day) {
      return untilDay == null || untilDay.isAfter(day);
    }

    interface Repository extends JpaRepository<MembershipEntity, Long> {
      List<MembershipEntity> findByTeam(long team);
    }
  }

  @Entity(name = "place")
  @Table(name = "place")
  static class PlaceEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    String code;
    String name;
    String zone;
    @Version long version;

    protected PlaceEntity() {}

    PlaceEntity(String code, String name, String zone) {
      this.code = code;
      this.name = name;
      this.zone = zone;
    }

    interface Repository extends JpaRepository<PlaceEntity, Long> {
      boolean existsByCodeIgnoreCase(String code);

      boolean existsByNameIgnoreCase(String name);
    }
  }
}
