package mellowrota.server.caldav;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Person;
import mellowrota.server.sight.World;

/** The addresses under {@code /dav/} and what stands there for one person. */
final class Tree {

  static final String ROOT = "/dav/";
  static final String PRINCIPALS = "/dav/principals/";
  static final String CALENDARS = "/dav/calendars/";

  private static final Pattern PRINCIPAL = Pattern.compile("/dav/principals/(\\d{1,18})/?");
  private static final Pattern CALENDAR = Pattern.compile("/dav/calendars/(\\d{1,18})/?");
  private static final Pattern OBJECT =
      Pattern.compile("/dav/calendars/(\\d{1,18})/([0-9a-f-]{36})\\.ics");

  /** A place in the tree. */
  sealed interface Node {}

  record Root() implements Node {}

  record Principals() implements Node {}

  record Principal() implements Node {}

  record Home() implements Node {}

  record Collection(Calendar calendar, Rendering rendering) implements Node {}

  record Item(Calendar calendar, Rendering rendering, String uid) implements Node {}

  private final World world;
  private final Person person;

  Tree(World world, Person person) {
    this.world = world;
    this.person = person;
  }

  /** What stands at a path; empty alike for what is not there and what this person may not read. */
  Optional<Node> at(String path) {
    String withSlash = path.endsWith("/") ? path : path + "/";
    switch (withSlash) {
      case ROOT -> {
        return Optional.of(new Root());
      }
      case PRINCIPALS -> {
        return Optional.of(new Principals());
      }
      case CALENDARS -> {
        return Optional.of(new Home());
      }
      default -> {
        return deeper(path);
      }
    }
  }

  private Optional<Node> deeper(String path) {
    Matcher principal = PRINCIPAL.matcher(path);
    if (principal.matches()) {
      boolean own = principal.group(1).equals(Long.toString(person.id().value()));
      return own ? Optional.of(new Principal()) : Optional.empty();
    }
    Matcher calendar = CALENDAR.matcher(path);
    if (calendar.matches()) {
      return collection(calendar.group(1)).map(c -> c);
    }
    Matcher object = OBJECT.matcher(path);
    if (object.matches()) {
      return collection(object.group(1))
          .map(c -> new Item(c.calendar(), c.rendering(), object.group(2)));
    }
    return Optional.empty();
  }

  private Optional<Collection> collection(String number) {
    CalendarId id = CalendarId.of(Long.parseLong(number));
    return world
        .calendars()
        .find(id)
        .flatMap(
            calendar ->
                world
                    .calendars()
                    .servedTo(person.id(), id)
                    .map(rendering -> new Collection(calendar, rendering)));
  }

  /** Every calendar this person owns, is a member of, or has by a share. */
  List<Collection> collections() {
    List<Collection> found = new ArrayList<>();
    for (Calendar calendar : world.calendars().all()) {
      world
          .calendars()
          .servedTo(person.id(), calendar.id())
          .ifPresent(rendering -> found.add(new Collection(calendar, rendering)));
    }
    return found;
  }

  String principalHref() {
    return PRINCIPALS + person.id().value() + "/";
  }

  static String href(Calendar calendar) {
    return CALENDARS + calendar.id().value() + "/";
  }

  static String href(Calendar calendar, String uid) {
    return href(calendar) + uid + ".ics";
  }

  Person person() {
    return person;
  }
}
