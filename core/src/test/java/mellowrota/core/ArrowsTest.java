package mellowrota.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.util.Map;
import java.util.Set;
import org.testng.annotations.Test;

/** The core's packages lean on one another as drawn, on nothing else, and on no clock. */
public class ArrowsTest {

  private static final String CORE = "mellowrota.core.";

  private static final Map<String, Set<String>> LEANS_ON =
      Map.ofEntries(
          Map.entry("time", Set.of()),
          Map.entry("people", Set.of("time")),
          Map.entry("work", Set.of("people", "time")),
          Map.entry("calendar", Set.of("people", "time")),
          Map.entry("entry", Set.of("work", "calendar", "time")),
          Map.entry("rule", Set.of("work", "calendar", "entry", "people", "time")),
          Map.entry("sight", Set.of("work", "calendar", "entry", "rule", "people", "time")),
          Map.entry("project", Set.of("rule", "sight", "work", "calendar", "entry", "people")),
          Map.entry("change", Set.of("work", "people", "time")),
          Map.entry("sync", Set.of("entry", "time")),
          Map.entry("cover", Set.of("people", "time", "work")),
          Map.entry("text", Set.of()),
          Map.entry("find", Set.of("people", "text", "time", "work")),
          Map.entry("deadline", Set.of("text", "time", "work")));

  private final JavaClasses core =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("mellowrota.core");

  @Test
  public void theCoreKnowsNothingButJava() {
    classes()
        .that()
        .resideInAPackage("mellowrota.core..")
        .should()
        .onlyDependOnClassesThat()
        .resideInAnyPackage("java..", "mellowrota.core..")
        .check(core);
  }

  @Test
  public void packagesLeanOnOneAnotherAsDrawn() {
    LEANS_ON.forEach(
        (name, others) -> {
          String[] allowed =
              java.util.stream.Stream.concat(
                      java.util.stream.Stream.of("java..", CORE + name + ".."),
                      others.stream().map(other -> CORE + other + ".."))
                  .toArray(String[]::new);
          classes()
              .that()
              .resideInAPackage(CORE + name + "..")
              .should()
              .onlyDependOnClassesThat()
              .resideInAnyPackage(allowed)
              .check(core);
        });
  }

  @Test
  public void noPackagesFormARing() {
    slices().matching("mellowrota.core.(*)..").should().beFreeOfCycles().check(core);
  }

  @Test
  public void timeIsAnArgument() {
    for (Class<?> clock :
        Set.of(Instant.class, LocalDate.class, LocalDateTime.class, ZonedDateTime.class)) {
      noClasses().should().callMethod(clock, "now").check(core);
    }
  }
}
