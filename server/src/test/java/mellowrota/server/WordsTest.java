package mellowrota.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** docs/WORDS.md leads from a word on a screen to the code, whatever is added. */
public class WordsTest {

  private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();

  /** What stands in it as code. */
  private static Set<String> named() throws IOException {
    return Pattern.compile("`(\\w+)`")
        .matcher(Files.readString(ROOT.resolve("docs/WORDS.md")))
        .results()
        .map(found -> found.group(1))
        .collect(Collectors.toSet());
  }

  private static Set<String> publicClasses() {
    return new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("mellowrota.server")
            .stream()
            .filter(JavaClass::isTopLevelClass)
            .filter(type -> type.getModifiers().contains(JavaModifier.PUBLIC))
            .map(JavaClass::getSimpleName)
            .collect(Collectors.toSet());
  }

  @Test
  public void everyPublicClassIsThere() throws IOException {
    assertThat(publicClasses()).hasSizeGreaterThan(100).isSubsetOf(named());
  }

  @Test
  public void everyFeatureOfTheWebIsThere() throws IOException {
    try (Stream<Path> features = Files.list(ROOT.resolve("web/src/features"))) {
      assertThat(features.map(feature -> feature.getFileName().toString())).isSubsetOf(named());
    }
  }

  @Test
  public void nothingIsThereThatIsNoMore() throws IOException {
    Set<String> classes =
        named().stream()
            .filter(name -> Character.isUpperCase(name.charAt(0)))
            .collect(Collectors.toSet());
    assertThat(classes).isSubsetOf(publicClasses());
  }
}
