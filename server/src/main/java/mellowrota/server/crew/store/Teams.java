package mellowrota.server.crew.store;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Repository;

/** Teams as they are kept, and who is in them. */
@Repository
@RequiredArgsConstructor
public class Teams {

  private final EntityManager kept;

  /** A team with the colour it is shown in. */
  public record Coloured(Team team, String hue) {}

  /** A membership with its number. */
  public record Member(long id, Membership in) {}

  public List<Coloured> all() {
    return kept
        .createQuery("from TeamEntity order by id", TeamEntity.class)
        .getResultList()
        .stream()
        .map(one -> new Coloured(one.team(), one.hue))
        .toList();
  }

  public boolean has(TeamId id) {
    return kept.find(TeamEntity.class, id.value()) != null;
  }

  /** Whether another team is called so, in whatever case. */
  public boolean isTaken(String name, Optional<TeamId> byOtherThan) {
    return kept
        .createQuery("from TeamEntity where lower(name) = lower(:name)", TeamEntity.class)
        .setParameter("name", name)
        .getResultList()
        .stream()
        .anyMatch(one -> byOtherThan.filter(TeamId.of(one.id)::equals).isEmpty());
  }

  public TeamId add(String name, String hue) {
    TeamEntity entity = new TeamEntity(name, hue);
    kept.persist(entity);
    return TeamId.of(entity.id);
  }

  public void rename(TeamId id, String name) {
    Optional.ofNullable(kept.find(TeamEntity.class, id.value()))
            .orElseThrow(Problem::notFound)
            .name =
        name;
  }

  /** All that were ever in a team, in the order in which they came. */
  public List<Member> members() {
    return kept
        .createQuery("from MembershipEntity order by id", MembershipEntity.class)
        .getResultList()
        .stream()
        .map(one -> new Member(one.id, one.membership()))
        .toList();
  }

  public void join(TeamId team, Holder member, LocalDate from) {
    kept.persist(new MembershipEntity(team, member, from));
  }

  /** Takes a member out from a day, which counts for nothing where they came later. */
  public void leave(long membership, LocalDate day) {
    MembershipEntity entity = kept.find(MembershipEntity.class, membership);
    if (entity.isOpenOn(day)) {
      entity.untilDay = entity.fromDay.isAfter(day) ? entity.fromDay : day;
    }
  }
}
