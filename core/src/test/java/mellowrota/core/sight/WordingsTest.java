package mellowrota.core.sight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.project.Projector;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.rule.Target;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Which wording words an entry, and when a detail means anything on it. */
public class WordingsTest {

  private static final Wording PLAIN = Worlds.wording(1, "plain {title}", "", "");
  private static final Wording TICKETS = Worlds.wording(2, "ticket {title}", "", "");
  private static final Wording SAID = Worlds.wording(3, "said {title}", "", "");

  private static Worlds.Builder house(long said, List<Wording> wordings) {
    List<LandingRule> rules =
        List.of(
            Worlds.rule(1, new Target.OwnOf(Worlds.WORKING), Shape.GIVEN_DUE, said, true),
            Worlds.rule(2, new Target.Master(), Shape.GIVEN_DUE, said, true));
    return Worlds.world().coordinator(1, "Hana").worker(2, "Ines").wordings(wordings).rules(rules);
  }

  private static WorkRecord.Builder paddle() {
    return Worlds.ticket()
        .due(Worlds.dueAt("2026-11-27T13:00"))
        .assignments(List.of(Worlds.lead(2, Worlds.NOW)))
        .detail(DetailKey.TITLE, DetailValue.of("Stuck paddle"));
  }

  private static String titleOn(Worlds.World world, WorkRecord record, CalendarId calendar) {
    return world.projector().project(record).stream()
        .filter(one -> one.entry().key().calendar().equals(calendar))
        .flatMap(one -> one.faces().stream())
        .map(Projector.Seen::face)
        .map(Face::title)
        .findFirst()
        .orElseThrow();
  }

  @DataProvider
  public Object[][] chosen() {
    Map<Kind, WordingId> tickets = Map.of(Kind.TICKET, WordingId.of(2));
    Map<Kind, WordingId> jobs = Map.of(Kind.JOB, WordingId.of(2));
    return new Object[][] {
      {"the rule says one", 3, tickets, "said Stuck paddle"},
      {"none said: the kind's", 0, tickets, "ticket Stuck paddle"},
      {"none said and none of the kind: the house's", 0, jobs, "plain Stuck paddle"},
      {"one said that is gone: the kind's", 9, tickets, "ticket Stuck paddle"},
      {
        "none said, the kind's is gone",
        0,
        Map.of(Kind.TICKET, WordingId.of(9)),
        "plain Stuck paddle"
      },
    };
  }

  @Test(dataProvider = "chosen")
  public void theRuleThenTheKindThenTheHouse(
      String why, int said, Map<Kind, WordingId> usual, String title) {
    Worlds.World world = house(said, List.of(PLAIN, TICKETS, SAID)).usually(usual).build();
    assertThat(titleOn(world, paddle().build(), Worlds.own(2))).as(why).isEqualTo(title);
  }

  @DataProvider
  public Object[][] ownTitles() {
    return new Object[][] {
      {"holds on one's own calendar", PLAIN, false, "mine Stuck paddle"},
      {"the house fixed all titles", PLAIN, true, "plain Stuck paddle"},
      {"this wording is fixed", Worlds.fixed(PLAIN), false, "plain Stuck paddle"},
    };
  }

  @Test(dataProvider = "ownTitles")
  public void aTitleOfOnesOwn(String why, Wording wording, boolean fixed, String title) {
    Pattern mine = Pattern.of("mine {title}[ · {phone}]", Worlds.KNOWN);
    Worlds.World world =
        house(1, List.of(wording)).ownTitles(Map.of(PersonId.of(2), mine), fixed).build();
    WorkRecord record = paddle().build();
    assertThat(titleOn(world, record, Worlds.own(2))).as(why).isEqualTo(title);
    assertThat(titleOn(world, record, CalendarId.of(1))).isEqualTo("plain Stuck paddle");
  }

  /** Within what they may see: asking for more shows no more. */
  @Test
  public void aTitleOfOnesOwnShowsOnlyWhatMayBeShown() {
    Pattern mine = Pattern.of("{title}[ · {phone}][ · {quote}]", Worlds.KNOWN);
    Worlds.World world =
        house(1, List.of(PLAIN)).ownTitles(Map.of(PersonId.of(2), mine), false).build();
    WorkRecord record =
        paddle()
            .detail(DetailKey.PHONE, DetailValue.of("0555 0142"))
            .detail(DetailKey.QUOTE, DetailValue.of("880.00"))
            .build();
    assertThat(titleOn(world, record, Worlds.own(2))).isEqualTo("Stuck paddle · 0555 0142");
  }

  @Test
  public void theOthersAreEachPersonOnceAndNeverTheLead() {
    Wording wording = Worlds.wording(1, "{lead}[ with {others}]", "", "");
    Worlds.World world = house(1, List.of(wording)).worker(3, "Tam").build();
    WorkRecord twoRoles =
        paddle()
            .assignments(
                List.of(
                    Worlds.lead(2, Worlds.NOW),
                    Worlds.as(RoleId.SUPPORT, 2),
                    Worlds.as(RoleId.SUPPORT, 3),
                    Worlds.as(RoleId.SUPERVISOR, 3)))
            .build();
    assertThat(titleOn(world, twoRoles, CalendarId.of(1))).isEqualTo("Ines with Tam");
    assertThat(titleOn(world, twoRoles, Worlds.own(3))).isEqualTo("Ines");
  }

  private static List<DetailDefinition> withDay(Set<State> states) {
    List<DetailDefinition> all = new ArrayList<>(Details.usual());
    all.add(
        new DetailDefinition(
            Worlds.BERTH,
            "Berth",
            Set.of(Kind.TICKET),
            ForSet.EVERYONE,
            true,
            DetailSort.DATE,
            List.of(),
            states,
            ""));
    return all;
  }

  @DataProvider
  public Object[][] applying() {
    return new Object[][] {
      {Set.of(), State.CONFIRMED, State.CONFIRMED, true},
      {Set.of(State.CONFIRMED), State.CONFIRMED, State.CONFIRMED, true},
      {Set.of(State.TENTATIVE), State.CONFIRMED, State.CONFIRMED, false},
      {Set.of(State.CONFIRMED), State.DONE, State.CONFIRMED, true},
      {Set.of(State.DONE), State.DONE, State.CONFIRMED, true},
      {Set.of(State.DONE), State.CONFIRMED, State.CONFIRMED, false},
    };
  }

  @Test(dataProvider = "applying")
  public void aDetailThatDoesNotApplyIsNotShownAndSaysSo(
      Set<State> states, State state, State before, boolean applies) {
    Wording wording = Worlds.wording(1, "{title}[ · {berth}]", "", "");
    Worlds.World world = house(1, List.of(wording)).details(withDay(states)).build();
    WorkRecord record =
        paddle().states(state, before).detail(Worlds.BERTH, DetailValue.of("2026-11-27")).build();
    String shown = applies ? "Stuck paddle · Fri 27 Nov 2026" : "Stuck paddle";
    assertThat(titleOn(world, record, Worlds.own(2))).isEqualTo(shown);
    Projector.Projected own = world.projector().project(record).get(0);
    List<Sight.Told> told =
        world
            .sight()
            .explain(
                record,
                RecordReaders.of(record, world.crew()),
                own.entry(),
                world.calendars().audience(own.faces().get(0).rendering()));
    assertThat(told)
        .filteredOn(one -> one.detail().equals(Worlds.BERTH))
        .containsExactly(
            new Sight.Told(
                Worlds.BERTH,
                applies ? Sight.Status.SHOWN : Sight.Status.DOES_NOT_APPLY,
                Optional.empty()));
  }
}
