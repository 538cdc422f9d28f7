package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.server.sight.World;

/**
 * What a column of a file may be.
 *
 * @param key as {@code place}, {@code role:0}, {@code detail:phone}
 * @param label as people read it
 */
record Field(String key, String label, Set<String> alsoCalled) {

  static final String ROLE = "role:";
  static final String DETAIL = "detail:";
  static final Field ID =
      new Field(
          "id",
          say("incoming.id-in-the-source"),
          Set.of("number", "no", "nr", "key", "ref", "reference", "uid"));

  /** As in "ticket no". */
  private static final Pattern NUMBERED = Pattern.compile(".* (no\\.?|number|id|ref)");

  /** What rows of a file become. */
  enum What {
    RECORDS,
    PEOPLE,
    PLACES
  }

  static List<Field> of(What what, World world) {
    return switch (what) {
      case RECORDS -> records(world);
      case PEOPLE ->
          List.of(
              ID,
              new Field("name", "Name", Set.of("person", "worker", "full name")),
              new Field("standing", "Type", Set.of("status", "kind", "standing")),
              new Field("teams", "Teams", Set.of("team", "crew", "group")),
              new Field("skills", "Skills", Set.of("skill", "can", "qualifications")));
      case PLACES ->
          List.of(
              ID,
              new Field("code", "Code", Set.of("short name", "abbreviation")),
              new Field("name", "Name", Set.of("place", "site", "location", "title")),
              zone());
    };
  }

  private static Field zone() {
    return new Field("zone", "Time zone", Set.of("timezone", "tz"));
  }

  private static List<Field> records(World world) {
    List<Field> found = new ArrayList<>();
    found.add(ID);
    found.add(new Field("kind", "Kind", Set.of("type", "sort")));
    found.add(new Field("title", "Title", Set.of("subject", "summary", "what", "task")));
    found.add(new Field("place", "Place", Set.of("site", "location", "where")));
    found.add(new Field("uses", "Also uses", Set.of("uses", "equipment", "vehicle")));
    found.add(new Field("team", "Team", Set.of("crew", "group")));
    found.add(new Field("start", "Start", Set.of("from", "begin", "begins", "start time")));
    found.add(new Field("end", "End", Set.of("to", "until", "finish", "ends", "end time")));
    found.add(zone());
    found.add(new Field("due", "Due", Set.of("due date", "due time", "due by", "by")));
    for (Role role : world.roles()) {
      found.add(new Field(ROLE + role.id().value(), role.name(), called(role.id())));
    }
    found.add(new Field("estimate", "Estimate, hours", Set.of("estimate", "effort", "hours")));
    found.add(new Field("wanted", "People needed", Set.of("wanted", "crew size", "people wanted")));
    found.add(new Field("skills", "Skills needed", Set.of("skills", "skill", "skills wanted")));
    found.add(new Field("tags", "Tags", Set.of("tag", "labels", "categories")));
    found.add(new Field("state", "State", Set.of("status")));
    found.add(new Field("private", "Private", Set.of("confidential")));
    found.add(
        new Field(
            "leastHeadCount", "Minimum headcount", Set.of("head count", "headcount", "people")));
    for (DetailDefinition detail : world.details().all()) {
      if (detail.isWritten()) {
        found.add(new Field(DETAIL + detail.key().name(), detail.label(), called(detail.key())));
      }
    }
    return found;
  }

  private static Set<String> called(DetailKey detail) {
    return detail.equals(DetailKey.NOTES)
        ? Set.of("notes", "note", "remark", "remarks", "comment", "comments", "description")
        : Set.of(detail.name());
  }

  private static Set<String> called(RoleId role) {
    if (role.equals(RoleId.LEAD)) {
      return Set.of("worker", "person", "given to", "assigned to", "who");
    }
    return role.equals(RoleId.SUPPORT) ? Set.of("others", "helpers", "attendees") : Set.of();
  }

  /** The field a column's name speaks of, if it is plain. */
  static Optional<Field> named(List<Field> fields, String column) {
    String name = column.strip().toLowerCase(Locale.ROOT).replace('_', ' ');
    return fields.stream()
        .filter(
            f ->
                f.key().toLowerCase(Locale.ROOT).equals(name)
                    || f.label().toLowerCase(Locale.ROOT).equals(name))
        .findFirst()
        .or(() -> fields.stream().filter(f -> f.alsoCalled().contains(name)).findFirst())
        .or(() -> NUMBERED.matcher(name).matches() ? Optional.of(ID) : Optional.empty());
  }
}
