package mellowrota.server.records.store;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import java.time.Instant;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;

/** A person, or a team, on a visit of a record. */
@Embeddable
class AssignmentPart {

  int visit;

  /** P of a person, T of a team. */
  @Column(name = "holder_kind", columnDefinition = "char(1)")
  char holderKind;

  long holder;
  int role;

  Instant givenAt;

  protected AssignmentPart() {}

  AssignmentPart(Assignment one) {
    visit = one.visit();
    if (one.holder() instanceof Holder.OnePerson of) {
      holderKind = 'P';
      holder = of.person().value();
    } else {
      holderKind = 'T';
      holder = ((Holder.WholeTeam) one.holder()).team().value();
    }
    role = one.role().value();
    givenAt = one.givenAt();
  }

  Assignment assignment() {
    return new Assignment(
        visit,
        holderKind == 'P' ? Holder.of(PersonId.of(holder)) : Holder.of(TeamId.of(holder)),
        RoleId.of(role),
        givenAt);
  }
}
