package mellowrota.core.sight;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.Worlds;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.rule.Condition;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.rule.Target;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Whose margins count, and that they tell nobody of what they come from. */
public class SettledMarginsTest {

  private static final long INES = 2;
  private static final long TAM = 3;
  private static final long LOCK = 7;
  private static final long BASIN = 8;

  private static MarginSetting set(Integer before, Integer after) {
    return new MarginSetting(
        Optional.ofNullable(before).map(Duration::ofMinutes),
        Optional.ofNullable(after).map(Duration::ofMinutes));
  }

  private static LandingRule spans(long id, Target target) {
    return Worlds.rule(
        id, new Condition.KindIs(Set.of(Kind.TICKET)), target, Shape.SPAN_WITH_MARGINS, 1, true);
  }

  private static Worlds.Builder world(MarginSettings margins) {
    return Worlds.world()
        .coordinator(1, "Hana")
        .worker(INES, "Ines")
        .worker(TAM, "Tam")
        .team(1, "Thornmere", INES)
        .place(LOCK, "L7", "Lock 7")
        .place(BASIN, "OB", "Osier Basin")
        .rules(
            List.of(
                spans(1, new Target.OwnOf(Worlds.WORKING)),
                spans(2, new Target.TeamsOf(Worlds.WORKING))))
        .margins(margins);
  }

  private static WorkRecord.Builder from9to12(MarginSetting own) {
    When when =
        new When.Timed(
            LocalTimes.resolve(LocalDateTime.parse("2026-11-25T09:00"), Worlds.LONDON),
            LocalTimes.resolve(LocalDateTime.parse("2026-11-25T12:00"), Worlds.LONDON));
    return Worlds.ticket()
        .visits(List.of(new Visit(1, Optional.of(when), own)))
        .place(Optional.of(PlaceId.of(LOCK)))
        .assignments(List.of(Worlds.lead(INES, Worlds.NOW)));
  }

  /** As "08:30–12:15", of what all readers of a calendar get. */
  private static String seen(Worlds.World world, WorkRecord record, long rendering) {
    return world.projector().project(record).stream()
        .flatMap(one -> one.faces().stream())
        .filter(one -> one.rendering().value() == rendering)
        .map(one -> (EntryTimes.Timed) one.face().times())
        .map(times -> times.start().toLocalTime() + "–" + times.end().toLocalTime())
        .collect(Collectors.joining(" "));
  }

  @DataProvider
  Object[][] saying() {
    return new Object[][] {
      {"nobody says anything", Map.of(), "09:00–12:00"},
      {"the house", Map.of("house", set(10, 10)), "08:50–12:10"},
      {
        "the person before the house",
        Map.of("house", set(10, 10), "ines", set(20, 20)),
        "08:40–12:20"
      },
      {
        "another person's are not theirs",
        Map.of("house", set(10, 10), "tam", set(20, 20)),
        "08:50–12:10"
      },
      {
        "the kind before the person",
        Map.of("ines", set(20, 20), "kind", set(30, 30)),
        "08:30–12:30"
      },
      {
        "the place before the kind",
        Map.of("kind", set(30, 30), "place", set(40, 40)),
        "08:20–12:40"
      },
      {"another place's are not its own", Map.of("other", set(40, 40)), "09:00–12:00"},
      {"the record before all", Map.of("place", set(40, 40), "record", set(50, 50)), "08:10–12:50"},
      {"zero is a margin too", Map.of("place", set(40, 40), "record", set(0, 0)), "09:00–12:00"},
      {
        "each side by itself",
        Map.of("house", set(10, 10), "kind", set(null, 30), "place", set(40, null)),
        "08:20–12:30"
      },
      {"a side of which nobody says anything", Map.of("record", set(15, null)), "08:45–12:00"},
    };
  }

  @Test(dataProvider = "saying")
  public void whoSaysSomethingFirstCounts(
      String name, Map<String, MarginSetting> said, String expected) {
    Map<String, MarginSetting> all = new HashMap<>(said);
    MarginSetting own = all.getOrDefault("record", MarginSetting.UNSET);
    MarginSettings settings =
        new MarginSettings(
            all.getOrDefault("house", MarginSetting.UNSET),
            Map.of(Kind.TICKET, all.getOrDefault("kind", MarginSetting.UNSET)),
            Map.of(
                PlaceId.of(LOCK), all.getOrDefault("place", MarginSetting.UNSET),
                PlaceId.of(BASIN), all.getOrDefault("other", MarginSetting.UNSET)),
            Map.of(
                PersonId.of(INES), all.getOrDefault("ines", MarginSetting.UNSET),
                PersonId.of(TAM), all.getOrDefault("tam", MarginSetting.UNSET)));
    Worlds.World world = world(settings).build();
    WorkRecord record = from9to12(own).build();
    assertThat(seen(world, record, Worlds.own(INES).value())).as(name).isEqualTo(expected);
    // On a calendar that is nobody's own, the Lead's count.
    assertThat(seen(world, record, Worlds.ofTeam(1).value())).as(name).isEqualTo(expected);
  }

  @Test
  public void onSomebodysOwnCalendarTheirsCountWhoeverLeads() {
    MarginSettings settings =
        new MarginSettings(
            MarginSetting.UNSET,
            Map.of(),
            Map.of(),
            Map.of(PersonId.of(INES), set(20, 0), PersonId.of(TAM), set(5, 0)));
    WorkRecord record =
        from9to12(MarginSetting.UNSET)
            .assignments(List.of(Worlds.lead(INES, Worlds.NOW), Worlds.as(RoleId.SUPPORT, TAM)))
            .build();
    Worlds.World world = world(settings).build();
    assertThat(seen(world, record, Worlds.own(INES).value())).isEqualTo("08:40–12:00");
    assertThat(seen(world, record, Worlds.own(TAM).value())).isEqualTo("08:55–12:00");
    assertThat(seen(world, record, Worlds.ofTeam(1).value())).isEqualTo("08:40–12:00");
  }

  /** What a place or a person settles of margins would tell of them by the times alone. */
  @Test
  public void marginsAreForNobodyWhoMayNotSeeWhatTheyComeFrom() {
    MarginSettings settings =
        new MarginSettings(
            MarginSetting.UNSET,
            Map.of(),
            Map.of(PlaceId.of(BASIN), set(45, 45)),
            Map.of(PersonId.of(TAM), set(15, 15)));
    for (DetailKey hidden : List.of(DetailKey.PLACE, DetailKey.PEOPLE)) {
      Worlds.World world = world(settings).details(office(hidden)).build();
      Set<String> told =
          variants(hidden).stream()
              .map(record -> seen(world, record, Worlds.own(INES).value()))
              .collect(Collectors.toSet());
      assertThat(told).as("%s told by margins", hidden).containsExactly("09:00–12:00");
    }
    Worlds.World open = world(settings).build();
    assertThat(
            variants(DetailKey.PLACE).stream()
                .map(record -> seen(open, record, Worlds.own(INES).value())))
        .as("who sees the place sees its margins")
        .containsExactly("09:00–12:00", "08:15–12:45");
  }

  private static List<DetailDefinition> office(DetailKey hidden) {
    List<DetailDefinition> found = new ArrayList<>();
    for (DetailDefinition one : Details.usual()) {
      found.add(
          one.key().equals(hidden)
              ? new DetailDefinition(one.key(), one.label(), one.kinds(), ForSet.OFFICE, false)
              : one);
    }
    return found;
  }

  /** The same record with other values of what is hidden. */
  private static List<WorkRecord> variants(DetailKey hidden) {
    WorkRecord.Builder one = from9to12(MarginSetting.UNSET);
    return hidden.equals(DetailKey.PLACE)
        ? List.of(one.build(), one.place(Optional.of(PlaceId.of(BASIN))).build())
        : List.of(
            one.build(),
            one.assignments(List.of(Worlds.lead(TAM, Worlds.NOW), Worlds.as(RoleId.SUPPORT, INES)))
                .build());
  }
}
