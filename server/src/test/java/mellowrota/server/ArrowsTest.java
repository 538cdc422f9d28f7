package mellowrota.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import jakarta.persistence.Entity;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/**
 * The server's features lean on one another as drawn, and nobody asks a clock but the one given.
 */
public class ArrowsTest {

  private static final String SERVER = "mellowrota.server.";

  /** Besides the core and the platform, which everybody may use. */
  private static final Map<String, Set<String>> LEANS_ON =
      Map.ofEntries(
          Map.entry("platform", Set.of()),
          Map.entry("acts", Set.of()),
          Map.entry("ical", Set.of()),
          Map.entry("crew", Set.of("acts")),
          Map.entry("sight", Set.of("crew")),
          Map.entry("records", Set.of("acts", "calendars", "sight", "crew")),
          Map.entry("calendars", Set.of("acts", "sight")),
          Map.entry("rules", Set.of("acts", "records", "sight", "crew", "calendars")),
          Map.entry("caldav", Set.of("calendars", "ical", "sight", "crew")),
          Map.entry("accounts", Set.of("acts", "crew")),
          Map.entry("regions", Set.of("acts", "crew", "ical", "sight")),
          Map.entry("cover", Set.of("acts", "crew", "links", "records", "regions", "sight")),
          Map.entry("board", Set.of("records", "sight", "crew", "links")),
          Map.entry("today", Set.of("acts", "crew", "records", "sight")),
          Map.entry("feeds", Set.of("acts", "calendars", "ical", "sight")),
          Map.entry("releases", Set.of("acts", "calendars", "records", "sight")),
          Map.entry("outside", Set.of()),
          Map.entry(
              "links", Set.of("acts", "calendars", "crew", "ical", "outside", "records", "sight")),
          Map.entry("shares", Set.of("acts", "sight")),
          Map.entry("audit", Set.of("records", "sight")),
          Map.entry("files", Set.of("calendars", "ical", "records", "sight")),
          Map.entry("incoming", Set.of("acts", "crew", "ical", "records", "sight")),
          Map.entry("live", Set.of("acts", "records", "sight", "crew")),
          Map.entry(
              "demo",
              Set.of(
                  "accounts",
                  "calendars",
                  "cover",
                  "crew",
                  "links",
                  "outside",
                  "records",
                  "regions")));

  private final JavaClasses server =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("mellowrota.server");

  @Test
  public void featuresLeanOnOneAnotherAsDrawn() {
    LEANS_ON.forEach(
        (name, others) -> {
          String[] allowed =
              Stream.concat(Stream.of(name, "platform"), others.stream())
                  .map(feature -> SERVER + feature + "..")
                  .toArray(String[]::new);
          noClasses()
              .that()
              .resideInAPackage(SERVER + name + "..")
              .should()
              .dependOnClassesThat(
                  com.tngtech.archunit.base.DescribedPredicate.describe(
                      "features outside " + others,
                      other ->
                          other.getPackageName().startsWith(SERVER)
                              && Stream.of(allowed)
                                  .map(p -> p.substring(0, p.length() - 2))
                                  .noneMatch(p -> other.getPackageName().startsWith(p))))
              .check(server);
        });
  }

  @Test
  public void featuresFormNoRing() {
    slices().matching("mellowrota.server.(*)..").should().beFreeOfCycles().check(server);
  }

  @Test
  public void everyFeatureIsNamedHere() {
    Set<String> known = new java.util.TreeSet<>(LEANS_ON.keySet());
    known.add("boot");
    String[] packages = known.stream().map(name -> SERVER + name + "..").toArray(String[]::new);
    classes().should().resideInAnyPackage(packages).check(server);
  }

  /** What a store keeps is nobody's to name but its own, and goes through the session alone. */
  @Test
  public void whatIsKeptIsNamedByItsStoreAlone() {
    classes()
        .that()
        .areAnnotatedWith(Entity.class)
        .and()
        .resideInAPackage("..store..")
        .should()
        .bePackagePrivate()
        .check(server);
    noClasses()
        .that()
        .resideInAnyPackage("..store..", SERVER + "regions..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("org.springframework.jdbc..", "java.sql..")
        .check(server);
  }

  @Test
  public void theClockIsGiven() {
    for (Class<?> clock :
        Set.of(Instant.class, LocalDate.class, LocalDateTime.class, ZonedDateTime.class)) {
      noClasses().should().callMethod(clock, "now").check(server);
    }
  }
}
