package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Margins;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Two people change places, by hand: ours is from eight until twelve of the first day. */
public class SwapsTest {

  private static final Instant MIDNIGHT = Instant.parse("2026-12-07T00:00:00Z");

  private static final Limits LIMITS =
      new Limits(
          Map.of(
              Clash.Kind.DOUBLE, Clash.Level.NEVER,
              Clash.Kind.LEAVE, Clash.Level.NEVER,
              Clash.Kind.SKILL, Clash.Level.NEVER),
          Duration.ofHours(11),
          Duration.ZERO,
          DayOfWeek.MONDAY,
          Duration.ZERO,
          0,
          Duration.ZERO,
          0,
          0,
          0);

  private static final Bounds BOUNDS =
      new Bounds(LIMITS, new Travel(Map.of(), Map.of(), 0), Map.of());

  private static TimeSpan hours(String span) {
    String[] ends = span.split("-");
    return TimeSpan.of(
        MIDNIGHT.plus(Duration.ofHours(Long.parseLong(ends[0]))),
        MIDNIGHT.plus(Duration.ofHours(Long.parseLong(ends[1]))));
  }

  private static Work work(String id, String span, String skill) {
    return new Work(
        id,
        hours(span),
        Optional.empty(),
        false,
        Optional.empty(),
        Margins.NONE,
        false,
        skill.isEmpty() ? List.of() : List.of(Optional.of(skill)),
        ZoneOffset.UTC);
  }

  private static WhoCould.Candidate holder(long id, String others, String leave, String skill) {
    List<Work> work = new ArrayList<>();
    for (String one : others.isEmpty() ? new String[0] : others.split(" ")) {
      work.add(work("other " + id + " " + one, one, ""));
    }
    Map<String, Validity> skills = skill.isEmpty() ? Map.of() : Map.of(skill, Validity.ALWAYS);
    return new WhoCould.Candidate(
        new Commitments(
            PersonId.of(id),
            ZoneOffset.UTC,
            Hours.UNSAID,
            leave.isEmpty() ? List.of() : List.of(new Commitments.Leave("leave", hours(leave))),
            List.of(),
            work,
            new Eligibility(skills, false, List.of(), Optional.empty())),
        "Somebody " + id,
        false,
        List.of(),
        List.of(),
        Duration.ZERO,
        Optional.empty(),
        WhoCould.Ties.NONE);
  }

  /** Our other work, our leave; their work, its skill, their other work; what is said, of whom. */
  @DataProvider
  public Object[][] cases() {
    return new Object[][] {
      {"both are free", "", "", "32-36", "", "", "YES", "", ""},
      {"at once, since each gives theirs up", "", "", "8-12", "", "", "YES", "", ""},
      {"they overlap in part", "", "", "10-14", "", "", "YES", "", ""},
      {"they have other work at ours", "", "", "32-36", "", "9-10", "NO", "DOUBLE", ""},
      {"we have other work at theirs", "33-34", "", "32-36", "", "", "NO", "", "DOUBLE"},
      {"we are away at theirs", "", "24-48", "32-36", "", "", "NO", "", "LEAVE"},
      {"theirs wants what we cannot", "", "", "32-36", "sluice", "", "NO", "", "SKILL"},
      {"they rest too little before ours", "", "", "80-84", "", "1-3", "WITH_REASON", "REST", ""},
      {"we rest too little after theirs", "40-44", "", "32-34", "", "", "WITH_REASON", "", "REST"},
      {"both rest too little", "40-44", "", "32-34", "", "1-3", "WITH_REASON", "REST", "REST"},
    };
  }

  @Test(dataProvider = "cases")
  public void eachIsTriedWithTheOthersInPlaceOfTheirOwn(
      String what,
      String our,
      String away,
      String span,
      String skill,
      String their,
      String verdict,
      String they,
      String we) {
    Swaps.Side ours = new Swaps.Side(work("ours", "8-12", ""), holder(1, our, away, ""));
    Swaps.Side theirs =
        new Swaps.Side(
            work("theirs", span, skill), holder(2, their.replace("1-3", "1-3"), "", skill));
    Swaps.Swap swap = Swaps.of(ours, List.of(theirs), BOUNDS).get(0);
    assertThat(swap.verdict().name()).as(what).isEqualTo(verdict);
    assertThat(why(swap.they())).as(what).isEqualTo(they);
    assertThat(why(swap.we())).as(what).isEqualTo(we);
  }

  private static String why(WhoCould.Answer answer) {
    return String.join(" ", answer.reasons().stream().map(one -> one.why().name()).toList());
  }

  @Test
  public void whatBothCouldIsFirstThenWhatIsNearer() {
    Swaps.Side ours = new Swaps.Side(work("ours", "8-12", ""), holder(1, "", "", ""));
    List<Swaps.Side> others =
        List.of(
            new Swaps.Side(work("later", "80-84", ""), holder(2, "", "", "")),
            new Swaps.Side(work("at work", "9-11", ""), holder(3, "10-11", "", "")),
            new Swaps.Side(work("tired", "32-36", ""), holder(4, "1-3", "", "")),
            new Swaps.Side(work("sooner", "33-37", ""), holder(5, "", "", "")));
    assertThat(Swaps.of(ours, others, BOUNDS).stream().map(one -> one.theirs().work().id()))
        .containsExactly("sooner", "later", "tired", "at work");
  }
}
