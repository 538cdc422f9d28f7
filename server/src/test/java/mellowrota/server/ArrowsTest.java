package mellowrota.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import jakarta.persistence.CollectionTable;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
          Map.entry("calendars", Set.of("acts", "ical", "sight")),
          Map.entry("rules", Set.of("acts", "records", "sight", "crew", "calendars")),
          Map.entry("caldav", Set.of("calendars", "ical", "sight", "crew")),
          Map.entry("accounts", Set.of("acts", "crew")),
          Map.entry("regions", Set.of("acts", "crew", "ical", "sight")),
          Map.entry("cover", Set.of("acts", "crew", "links", "records", "sight")),
          Map.entry("deadlines", Set.of("acts", "crew", "files", "ical", "records", "sight")),
          Map.entry("board", Set.of("records", "sight", "crew", "links")),
          Map.entry("today", Set.of("acts", "crew", "records", "sight")),
          Map.entry("feeds", Set.of("acts", "calendars", "crew", "ical", "sight")),
          Map.entry("releases", Set.of("acts", "calendars", "records", "sight")),
          Map.entry("outside", Set.of()),
          Map.entry(
              "links", Set.of("acts", "calendars", "crew", "ical", "outside", "records", "sight")),
          Map.entry("shares", Set.of("acts", "crew", "sight")),
          Map.entry("audit", Set.of("records", "sight")),
          Map.entry("files", Set.of("calendars", "ical", "records", "sight")),
          Map.entry("incoming", Set.of("acts", "crew", "ical", "records", "sight")),
          Map.entry("live", Set.of("acts", "records", "sight", "crew")),
          Map.entry(
              "demo",
              Set.of(
                  "accounts",
                  "acts",
                  "cover",
                  "deadlines",
                  "crew",
                  "links",
                  "outside",
                  "records",
                  "regions",
                  "sight")));

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
                  DescribedPredicate.describe(
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
    Set<String> known = new TreeSet<>(LEANS_ON.keySet());
    known.add("boot");
    String[] packages = known.stream().map(name -> SERVER + name + "..").toArray(String[]::new);
    classes().should().resideInAnyPackage(packages).check(server);
  }

  /** Beside the session: LISTEN, whose sessions Spring keeps, and what the database's codes say. */
  private static final Set<String> JDBC =
      Set.of(
          SERVER + "live.LiveEvents",
          SERVER + "accounts.SessionTransactions",
          SERVER + "platform.Failures");

  @Test
  public void whatIsKeptGoesThroughTheSession() {
    classes()
        .that()
        .areAnnotatedWith(Entity.class)
        .should()
        .bePackagePrivate()
        .andShould()
        .resideInAPackage("..store..")
        .check(server);
    noClasses()
        .that(
            DescribedPredicate.describe(
                "are not " + JDBC, one -> JDBC.stream().noneMatch(one.getName()::startsWith)))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("org.springframework.jdbc..", "java.sql..", "javax.sql..")
        .check(server);
  }

  /** Questions that HQL cannot ask; each says why. */
  @Test
  public void nativeQueriesAreFew() {
    long found =
        server.stream()
            .flatMap(one -> one.getMethodCallsFromSelf().stream())
            .filter(
                call ->
                    call.getTarget().getName().equals("createNativeQuery")
                        || call.getTarget().getOwner().getSimpleName().equals("OpenableRecords")
                            && call.getTarget().getName().equals("query"))
            .count();
    assertThat(found).isBetween(1L, 40L);
  }

  private static final Path MAIN = Path.of("src", "main");

  /** Flyway keeps its own; what a session holds is Spring's. */
  private static final Set<String> OF_OTHERS = Set.of("spring_session_attributes");

  @Test
  public void everyTableHasItsEntity() throws IOException {
    Set<String> tables = new TreeSet<>();
    for (Path script : files(MAIN.resolve("resources/db/migration"))) {
      String text = Files.readString(script);
      Matcher made = Pattern.compile("create (?:unlogged )?table (\\w+)").matcher(text);
      while (made.find()) {
        tables.add(made.group(1));
      }
      Matcher dropped = Pattern.compile("drop table (\\w+)").matcher(text);
      while (dropped.find()) {
        tables.remove(dropped.group(1));
      }
    }
    tables.removeAll(OF_OTHERS);
    Set<String> mapped = new TreeSet<>();
    for (JavaClass one : server) {
      if (one.isAnnotatedWith(Entity.class)) {
        mapped.add(one.getAnnotationOfType(Table.class).name());
      }
      one.getFields().stream()
          .filter(field -> field.isAnnotatedWith(CollectionTable.class))
          .forEach(field -> mapped.add(field.getAnnotationOfType(CollectionTable.class).name()));
    }
    assertThat(mapped).isEqualTo(tables);
  }

  /**
   * Entities that questions of another feature's store name, since what it asks must be one
   * question: whoever may not open a record is told nothing of it by what is left out (SIGHT 9),
   * and a calendar is compared with its copies under one lock.
   */
  private static final Map<String, Set<String>> ASKED_ELSEWHERE =
      Map.of(
          "ActEntity", Set.of("RecordStore", "RecordSets"),
          "RenderingEntity", Set.of("OpeningStore", "LinkStore"),
          "CalendarEntity", Set.of("OpeningStore", "LinkStore"));

  @Test
  public void anEntityIsNamedByItsFeatureAlone() throws IOException {
    for (JavaClass entity : server) {
      if (entity.isAnnotatedWith(Entity.class)) {
        String feature = entity.getPackageName();
        Set<String> elsewhere = new TreeSet<>();
        for (Path file : files(MAIN.resolve("java/mellowrota/server"))) {
          boolean own = file.toString().replace('/', '.').contains(feature);
          if (!own
              && Files.readString(file).matches("(?s).*\\b" + entity.getSimpleName() + "\\b.*")) {
            elsewhere.add(file.getFileName().toString().replace(".java", ""));
          }
        }
        assertThat(elsewhere)
            .as(entity.getSimpleName())
            .isEqualTo(
                new TreeSet<>(ASKED_ELSEWHERE.getOrDefault(entity.getSimpleName(), Set.of())));
      }
    }
  }

  private static List<Path> files(Path in) throws IOException {
    try (Stream<Path> all = Files.walk(in)) {
      return all.filter(Files::isRegularFile)
          .sorted(Comparator.comparing(ArrowsTest::number).thenComparing(Path::toString))
          .toList();
    }
  }

  /** Of a migration, which are done in the order of their numbers. */
  private static int number(Path file) {
    Matcher number = Pattern.compile("V(\\d+)__.*").matcher(file.getFileName().toString());
    return number.matches() ? Integer.parseInt(number.group(1)) : 0;
  }

  @Test
  public void theClockIsGiven() {
    for (Class<?> clock :
        Set.of(Instant.class, LocalDate.class, LocalDateTime.class, ZonedDateTime.class)) {
      noClasses().should().callMethod(clock, "now").check(server);
    }
  }
}
