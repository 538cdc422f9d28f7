package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.People;
import mellowrota.server.incoming.store.ImportedRows;
import mellowrota.server.sight.World;

/** Reads rows that become people or places, and judges them together. */
final class CrewRows {

  private static final int LONGEST_NAME = 100;
  private static final int LONGEST_CODE = 12;
  private static final int LONGEST_SKILL = 40;
  private static final Pattern SKILL = Pattern.compile("(.+?)(?: from (\\S+))?(?: until (.+))?");

  private final Known known;
  private final Map<String, Long> placeCodes = new HashMap<>();
  private final Map<String, Long> placeNames = new HashMap<>();

  CrewRows(World world) {
    known = Known.in(world);
    for (Place place : world.placeList()) {
      placeCodes.put(plain(place.code()), place.id().value());
      placeNames.put(plain(place.name()), place.id().value());
    }
  }

  People.PersonWanted person(Cells cells, Optional<ImportedRows.Taken> before) {
    Map<String, String> said = said(before);
    Set<String> differing = cells.differing(said);
    Optional<String> name = text(cells, "name", LONGEST_NAME, before, differing);
    Set<TeamId> named = teams(cells, cells.text("teams"), true);
    Set<TeamId> formerly = teams(cells, said.getOrDefault("teams", ""), false);
    boolean teams = differing.contains("teams");
    Map<String, Validity> skills = skills(cells, cells.text("skills"), true);
    Set<String> lost =
        new HashSet<>(skills(cells, said.getOrDefault("skills", ""), false).keySet());
    lost.removeAll(skills.keySet());
    boolean skilled = differing.contains("skills");
    return new People.PersonWanted(
        before.map(b -> PersonId.of(b.target())).or(() -> somebody(cells)),
        name,
        differing.contains("standing") ? standing(cells) : Optional.empty(),
        teams ? without(named, formerly) : Set.of(),
        teams ? without(formerly, named) : Set.of(),
        skilled ? skills : Map.of(),
        skilled ? lost : Set.of());
  }

  /** As "sluice, bridge from 2026-03-01 until 2027-03-01", where both days are included. */
  private static Map<String, Validity> skills(Cells cells, String cell, boolean tells) {
    Map<String, Validity> found = new TreeMap<>();
    for (String part : cell.split("[,;\n]")) {
      Matcher skill = SKILL.matcher(part.strip());
      if (!skill.matches()) {
        continue;
      }
      Validity days = Validity.ALWAYS;
      try {
        days = new Validity(day(skill.group(2)), day(skill.group(3)));
      } catch (DateTimeParseException none) {
        if (tells) {
          cells.faultOf("skills", part.strip(), say("incoming.needs-a-day-after"));
        }
      }
      if (tells && skill.group(1).length() > LONGEST_SKILL) {
        cells.faultOf(
            "skills", skill.group(1), say("common.is-longer-than-characters", LONGEST_SKILL));
      } else if (found.put(skill.group(1), days) != null && tells) {
        cells.faultOf("skills", skill.group(1), say("incoming.is-named-twice"));
      }
    }
    return found;
  }

  private static Optional<LocalDate> day(String text) {
    return Optional.ofNullable(text).map(LocalDate::parse);
  }

  private static Set<TeamId> without(Set<TeamId> all, Set<TeamId> others) {
    Set<TeamId> found = new HashSet<>(all);
    found.removeAll(others);
    return found;
  }

  /** Who is here already under the name of a row that comes for the first time. */
  private Optional<PersonId> somebody(Cells cells) {
    String name = cells.text("name");
    return known.holders().has(name)
        ? cells
            .named("name", name, known.holders())
            .filter(Holder.OnePerson.class::isInstance)
            .map(Known::person)
        : Optional.empty();
  }

  /** Of people and places nothing is undone, so that what was said holds. */
  private static Map<String, String> said(Optional<ImportedRows.Taken> before) {
    return before.map(ImportedRows.Taken::cells).orElse(Map.of());
  }

  private Optional<Person.Standing> standing(Cells cells) {
    String text = cells.text("standing");
    if (text.isEmpty()) {
      return Optional.empty();
    }
    for (Person.Standing one : Person.Standing.values()) {
      if (one.name().equalsIgnoreCase(text)) {
        return Optional.of(one);
      }
    }
    cells.faultOf("standing", text, say("incoming.is-not-a-type"));
    return Optional.empty();
  }

  private Set<TeamId> teams(Cells cells, String cell, boolean tells) {
    Set<TeamId> found = new HashSet<>();
    for (String name : known.teams().parted(cell)) {
      if (tells || known.teams().has(name)) {
        cells.named("teams", name, known.teams()).ifPresent(found::add);
      }
    }
    return found;
  }

  People.PlaceWanted place(Cells cells, Optional<ImportedRows.Taken> before) {
    Set<String> differing = cells.differing(said(before));
    // A place that is here already under the code of a row that comes for the first time.
    Optional<Long> target =
        before
            .map(ImportedRows.Taken::target)
            .or(() -> Optional.ofNullable(placeCodes.get(plain(cells.text("code")))))
            .filter(id -> id > 0);
    Optional<String> code = text(cells, "code", LONGEST_CODE, before, differing);
    Optional<String> name = text(cells, "name", LONGEST_NAME, before, differing);
    code.ifPresent(text -> once(cells, "code", text, placeCodes, target));
    name.ifPresent(text -> once(cells, "name", text, placeNames, target));
    return new People.PlaceWanted(
        target.map(PlaceId::of),
        code,
        name,
        differing.contains("zone") ? zone(cells) : Optional.empty());
  }

  /** No two places have the same code or name, nor two rows. */
  private static void once(
      Cells cells, String field, String text, Map<String, Long> taken, Optional<Long> target) {
    Long other = taken.putIfAbsent(plain(text), target.orElse(-1L));
    if (other != null && !target.equals(Optional.of(other))) {
      cells.faultOf(field, text, say("incoming.is-already-the-of", field));
    }
  }

  private static Optional<String> zone(Cells cells) {
    String text = cells.text("zone");
    boolean named =
        ZoneId.getAvailableZoneIds().contains(text) && !(ZoneId.of(text) instanceof ZoneOffset);
    if (!text.isEmpty() && !named) {
      cells.faultOf("zone", text, say("incoming.is-not-a-time"));
    }
    return Optional.of(text);
  }

  /** A text that a new one must have and a known one keeps where no column says it. */
  private static Optional<String> text(
      Cells cells,
      String field,
      int most,
      Optional<ImportedRows.Taken> before,
      Set<String> differing) {
    String text = cells.text(field);
    boolean wanted = before.isEmpty() || differing.contains(field);
    if (wanted && text.isEmpty()) {
      cells.fault(field, say("incoming.the-is-missing", field));
    } else if (text.length() > most) {
      cells.faultOf(field, text, say("common.is-longer-than-characters", most));
    } else if (text.chars().anyMatch(Character::isISOControl)) {
      cells.fault(field, say("incoming.contains-a-line-break"));
    }
    return wanted ? Optional.of(text) : Optional.empty();
  }

  private static String plain(String text) {
    return text.strip().toLowerCase(Locale.ROOT);
  }
}
