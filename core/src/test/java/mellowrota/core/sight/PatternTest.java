package mellowrota.core.sight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.Worlds;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The wording language (LANDING 22 to 24), one case a line. */
public class PatternTest {

  private static final Map<String, String> ALL =
      Map.of(
          "ref", "T-318",
          "title", "Stuck paddle",
          "place", "Lock 7",
          "lead", "Ines",
          "gate code", "4471",
          "contact", "H. Varga",
          "phone", "0555 0142");

  private static String fill(String pattern, String... without) {
    List<String> gone = List.of(without);
    return Pattern.of(pattern, Worlds.KNOWN)
        .fill(
            (name, detail, format) ->
                gone.contains(name) ? Optional.empty() : Optional.ofNullable(ALL.get(name)));
  }

  @DataProvider
  Object[][] fillings() {
    String usual = "{ref} {title}[ · {place}][ · gate {gate code}]";
    return new Object[][] {
      {usual, new String[] {}, "T-318 Stuck paddle · Lock 7 · gate 4471"},
      {usual, new String[] {"gate code"}, "T-318 Stuck paddle · Lock 7"},
      {usual, new String[] {"place"}, "T-318 Stuck paddle · gate 4471"},
      {usual, new String[] {"ref"}, "Stuck paddle · Lock 7 · gate 4471"},
      {usual, new String[] {"title"}, "T-318 · Lock 7 · gate 4471"},
      {usual, new String[] {"ref", "title", "place", "gate code"}, ""},
      {"{title} - {place} · {lead}", new String[] {"place"}, "Stuck paddle - Ines"},
      {"{title} {place} · {lead}", new String[] {"place"}, "Stuck paddle · Ines"},
      {"{title} {place} {lead}", new String[] {"place"}, "Stuck paddle Ines"},
      {"{title}, {place}, {lead}", new String[] {"title", "lead"}, "Lock 7"},
      {"ref: {ref} · {title}", new String[] {"ref"}, "ref: Stuck paddle"},
      {"T-{ref}", new String[] {"ref"}, "T"},
      {"{contact}\n{phone}", new String[] {"contact"}, "0555 0142"},
      {"{contact}\n\n{phone}", new String[] {}, "H. Varga\n\n0555 0142"},
      {"{contact}\n\n{phone}", new String[] {"contact"}, "0555 0142"},
      {"\n{contact}\n", new String[] {}, "H. Varga"},
      {"call {phone}", new String[] {"phone"}, "call"},
      {"[call {phone}]", new String[] {"phone"}, ""},
      {"[no detail here] {ref}", new String[] {}, "no detail here T-318"},
      {"\\{{ref}\\} \\[x\\] \\\\", new String[] {}, "{T-318} [x] \\"},
      {"a\\b", new String[] {}, "a\\b"},
    };
  }

  @Test(dataProvider = "fillings")
  public void itFills(String pattern, String[] without, String filled) {
    assertThat(fill(pattern, without)).isEqualTo(filled);
  }

  @Test
  public void aValueIsNeverReadAsPattern() {
    String filled =
        Pattern.of("{title}", Worlds.KNOWN).fill((n, d, f) -> Optional.of("{phone} [x] · "));
    assertThat(filled).isEqualTo("{phone} [x] ·");
  }

  @Test
  public void separatorsInsideValuesStay() {
    String filled =
        Pattern.of("{title} · {place}", Worlds.KNOWN)
            .fill((n, d, f) -> n.equals("title") ? Optional.of("a / b -") : Optional.empty());
    assertThat(filled).isEqualTo("a / b -");
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"{titel}", 1, "\"titel\" is not a detail"},
      {"a {title", 2, "{ is not closed"},
      {"a } b", 2, "} without a {"},
      {"[{ref} [x]]", 7, "[ inside [ ]"},
      {"{ref} ]", 6, "] without a ["},
      {"[ {ref}", 0, "[ is not closed"},
      {"{due: QQ}", 5, "\"Q\" is not a format letter"},
      {"{title: d}", 7, "only start, end, given and due"},
      {"{times}", 1, "\"times\" is not a detail"},
    };
  }

  @Test(dataProvider = "faults")
  public void aFaultPointsAtTheCharacter(String pattern, int position, String words) {
    Pattern.Parsed parsed = Pattern.parse(pattern, Worlds.KNOWN);
    assertThat(parsed.pattern()).isEmpty();
    assertThat(parsed.faults().get(0).position()).isEqualTo(position);
    assertThat(parsed.faults().get(0).message()).contains(words);
  }
}
