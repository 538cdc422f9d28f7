package mellowrota.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is wrong with a text is told at its place, in words that say how to mend it. */
public final class FaultsTest {

  static final String BEFORE =
      """
      chain: planned stoppage
      key date: closure starts
      ask: drained, public
      """;

  static String resource(String name) {
    try (InputStream file = FaultsTest.class.getResourceAsStream(name)) {
      return new String(file.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException failed) {
      throw new IllegalStateException(name, failed);
    }
  }

  /** Texts that stand after three lines, each with its faults behind an arrow. */
  @DataProvider
  public Object[][] examples() {
    return Stream.of(resource("faults.txt").split("\n\n"))
        .map(
            one -> {
              List<String> text = new ArrayList<>();
              List<String> faults = new ArrayList<>();
              for (String line : one.split("\n")) {
                if (line.startsWith("=> ")) {
                  faults.add(line.substring(3));
                } else {
                  text.add(line);
                }
              }
              return new Object[] {String.join("\n", text), String.join("\n", faults)};
            })
        .toArray(Object[][]::new);
  }

  @Test(dataProvider = "examples")
  public void areToldWhereTheyAre(String text, String faults) {
    ChainReader.Reading reading = ChainReader.read(BEFORE + text, House.KNOWN);
    assertThat(reading.faults().stream().map(Fault::toString).collect(Collectors.joining("\n")))
        .as(text)
        .isEqualTo(faults);
    assertThat(reading.chain()).isEmpty();
  }
}
