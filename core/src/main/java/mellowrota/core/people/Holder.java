package mellowrota.core.people;

/** Who can hold a role or be in a team: a person, or a team meaning its members now and later. */
public sealed interface Holder {

  static Holder of(PersonId person) {
    return new OnePerson(person);
  }

  static Holder of(TeamId team) {
    return new WholeTeam(team);
  }

  record OnePerson(PersonId person) implements Holder {}

  record WholeTeam(TeamId team) implements Holder {}
}
