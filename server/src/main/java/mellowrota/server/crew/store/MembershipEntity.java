package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.util.Optional;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;

/** That a person or a team is in a team, from one day until another. */
@Entity
@Table(name = "membership")
final class MembershipEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long team;

  Long memberPerson;

  Long memberTeam;

  LocalDate fromDay;

  LocalDate untilDay;

  protected MembershipEntity() {}

  MembershipEntity(TeamId team, Holder member, LocalDate fromDay) {
    this.team = team.value();
    if (member instanceof Holder.OnePerson one) {
      memberPerson = one.person().value();
    } else if (member instanceof Holder.WholeTeam nested) {
      memberTeam = nested.team().value();
    }
    this.fromDay = fromDay;
  }

  boolean isOpenOn(LocalDate day) {
    return untilDay == null || untilDay.isAfter(day);
  }

  Membership membership() {
    return new Membership(
        TeamId.of(team),
        memberPerson == null
            ? Holder.of(TeamId.of(memberTeam))
            : Holder.of(PersonId.of(memberPerson)),
        fromDay,
        Optional.ofNullable(untilDay));
  }
}
