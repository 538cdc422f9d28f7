package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Every pair of colours in use reads at 4.5 to 1 or better (WCAG 2.2 §1.4.3), light and dark. */
public class ThemeTest {

  private static JsonNode tokens() {
    try {
      return Api.JSON.readTree(Files.readString(Path.of("..", "web", "src", "app", "tokens.json")));
    } catch (IOException missing) {
      throw new AssertionError(missing);
    }
  }

  @DataProvider
  Object[][] pairs() {
    JsonNode pairs = tokens().get("pairs");
    Object[][] cases = new Object[pairs.size() * 2][];
    for (int i = 0; i < pairs.size(); i++) {
      String text = pairs.get(i).get(0).asString();
      String ground = pairs.get(i).get(1).asString();
      cases[2 * i] = new Object[] {"light", text, ground};
      cases[2 * i + 1] = new Object[] {"dark", text, ground};
    }
    return cases;
  }

  @Test(dataProvider = "pairs")
  public void textIsLegible(String mode, String text, String ground) {
    JsonNode palette = tokens().get(mode);
    double contrast = contrast(palette.get(text).asString(), palette.get(ground).asString());
    assertThat(contrast).as("%s: %s on %s", mode, text, ground).isGreaterThanOrEqualTo(4.5);
  }

  private static double contrast(String one, String other) {
    double a = luminance(one);
    double b = luminance(other);
    return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
  }

  /** Relative luminance as WCAG 2.2 defines it. */
  private static double luminance(String hex) {
    double sum = 0;
    double[] weights = {0.2126, 0.7152, 0.0722};
    for (int i = 0; i < 3; i++) {
      double c = Integer.parseInt(hex.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
      sum += weights[i] * (c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4));
    }
    return sum;
  }
}
