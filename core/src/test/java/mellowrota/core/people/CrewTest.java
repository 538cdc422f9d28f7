package mellowrota.core.people;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CrewTest {

  private static final LocalDate DAY = LocalDate.of(2026, 11, 25);

  @DataProvider
  Object[][] seeds() {
    Object[][] seeds = new Object[300][];
    for (int i = 0; i < seeds.length; i++) {
      seeds[i] = new Object[] {(long) i};
    }
    return seeds;
  }

  @Test(dataProvider = "seeds")
  public void nestedMembersAreThoseAWalkFinds(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    List<Person> people = new ArrayList<>();
    List<Team> teams = new ArrayList<>();
    for (int i = 1; i <= 6; i++) {
      people.add(Person.worker(PersonId.of(i), "p" + i));
      teams.add(new Team(TeamId.of(i), "t" + i));
    }
    List<Membership> memberships = new ArrayList<>();
    for (int i = 0; i < 14; i++) {
      Holder member =
          random.nextBoolean()
              ? Holder.of(PersonId.of(1 + random.nextInt(6)))
              : Holder.of(TeamId.of(1 + random.nextInt(6)));
      LocalDate from = DAY.minusDays(random.nextInt(-3, 10));
      Optional<LocalDate> until =
          random.nextInt(3) == 0
              ? Optional.of(from.plusDays(random.nextInt(12)))
              : Optional.empty();
      memberships.add(new Membership(TeamId.of(1 + random.nextInt(6)), member, from, until));
    }
    Crew crew = Crew.on(DAY, people, teams, memberships);
    for (Team team : teams) {
      Set<PersonId> walked = new HashSet<>();
      walk(team.id(), memberships, new HashSet<>(), walked);
      assertThat(crew.members(team.id()).keySet()).as("members of %s", team).isEqualTo(walked);
      for (Team other : teams) {
        Set<TeamId> below = new HashSet<>();
        below(other.id(), memberships, below);
        assertThat(crew.selfAndAncestors(team.id()).contains(other.id()))
            .isEqualTo(below.contains(team.id()));
      }
    }
  }

  private static void walk(
      TeamId team, List<Membership> memberships, Set<TeamId> seen, Set<PersonId> found) {
    if (!seen.add(team)) {
      return;
    }
    for (Membership m : memberships) {
      if (m.team().equals(team) && m.holdsOn(DAY)) {
        if (m.member() instanceof Holder.OnePerson one) {
          found.add(one.person());
        } else {
          walk(((Holder.WholeTeam) m.member()).team(), memberships, seen, found);
        }
      }
    }
  }

  private static void below(TeamId team, List<Membership> memberships, Set<TeamId> seen) {
    if (!seen.add(team)) {
      return;
    }
    for (Membership m : memberships) {
      if (m.team().equals(team)
          && m.holdsOn(DAY)
          && m.member() instanceof Holder.WholeTeam nested) {
        below(nested.team(), memberships, seen);
      }
    }
  }

  @Test
  public void untilIsTheFirstDayWithout() {
    Membership one =
        new Membership(TeamId.of(1), Holder.of(PersonId.of(1)), DAY.minusDays(5), Optional.of(DAY));
    assertThat(one.holdsOn(DAY.minusDays(1))).isTrue();
    assertThat(one.holdsOn(DAY)).isFalse();
  }
}
