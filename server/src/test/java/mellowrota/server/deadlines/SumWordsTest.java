package mellowrota.server.deadlines;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.ChainReader;
import mellowrota.core.deadline.Given;
import mellowrota.core.deadline.Known;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.deadline.Reckoner;
import mellowrota.core.deadline.Unit;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Due;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Six chains as a house has them: every date with its sum in words. */
public class SumWordsTest {

  private static final Path CHAINS =
      Path.of("../core/src/test/resources/mellowrota/core/deadline/chains.txt");

  private static final ZoneId ZONE = ZoneId.of("Europe/London");

  private static final List<Method> METHODS =
      List.of(
          new Method(Name.of("post"), 2, Unit.WORKING_DAYS),
          new Method(Name.of("hand"), 0, Unit.DAYS),
          new Method(Name.of("courier"), 1, Unit.DAYS),
          new Method(Name.of("mail"), 4, Unit.HOURS),
          new Method(Name.of("ship"), 1, Unit.MONTHS));

  private static final Known HOUSE =
      new Known(
          METHODS,
          names("Lead", "Support", "Supervisor", "Informed"),
          names(
              "Duty Office",
              "Marguerite Pell",
              "Priya Lund",
              "Thornmere crew",
              "Saltgate crew",
              "Upper Quill crew",
              "Bank and Dredging"));

  private static final WorkingDays DAYS =
      new WorkingDays(
          new WorkingWeek(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY)),
          Map.of(
              LocalDate.of(2026, 12, 25), "Midwinter",
              LocalDate.of(2026, 12, 28), "Midwinter, kept on Monday",
              LocalDate.of(2027, 1, 1), "New Year"),
          List.of());

  private static List<Name> names(String... names) {
    return Stream.of(names).map(Name::of).toList();
  }

  @DataProvider
  public Object[][] chains() throws IOException {
    String all = Files.readString(CHAINS);
    return Stream.of(all.split("----\n")).map(one -> one.split("==\n")).toArray(Object[][]::new);
  }

  @Test(dataProvider = "chains")
  public void everyDateSaysHowItCameToBe(String text, String dates) {
    String[] lines = dates.split("\n", 2);
    Chain chain = ChainReader.read(text, HOUSE).chain().orElseThrow();
    Given given = given(lines[0]);
    int year = given.keyDate().orElseThrow().day(ZONE).getYear();
    SumWords words = new SumWords(ZONE, year);
    String said =
        Reckoner.of(chain, given).stream()
            .map(one -> one.step().name() + " | " + said(words, one) + "\n")
            .collect(Collectors.joining());
    assertThat(said).isEqualTo(lines[1]);
  }

  private static String said(SumWords words, Reckoned one) {
    return one.date().isPresent()
        ? words.said(one.sum().orElseThrow())
        : "does not apply: " + SumWords.said(one.why().orElseThrow());
  }

  /** As in {@code key 2026-11-30 08:00; method post; yes drained; no diver dives}. */
  private static Given given(String line) {
    Optional<Due> key = Optional.empty();
    Optional<Name> method = Optional.empty();
    Map<Name, Boolean> answers = new HashMap<>();
    for (String part : line.split("; ")) {
      String value = part.substring(part.indexOf(' ') + 1);
      switch (part.substring(0, part.indexOf(' '))) {
        case "key" -> key = Optional.of(due(value));
        case "method" -> method = Optional.of(Name.of(value));
        case "yes" -> answers.put(Name.of(value), true);
        case "no" -> answers.put(Name.of(value), false);
        default -> throw new IllegalArgumentException(part);
      }
    }
    return new Given(key, method, answers, Map.of(), METHODS, DAYS, ZONE);
  }

  private static Due due(String text) {
    return text.contains(":")
        ? new Due.At(LocalDateTime.parse(text.replace(' ', 'T')).atZone(ZONE))
        : new Due.On(LocalDate.parse(text));
  }
}
