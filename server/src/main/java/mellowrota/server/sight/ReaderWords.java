package mellowrota.server.sight;

import static mellowrota.server.platform.Words.say;

import java.util.List;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;

/** Says who reads a rendering, to those who may list a calendar's readers (LANDING 17). */
public final class ReaderWords {

  private static final int MOST_NAMES = 3;

  private ReaderWords() {}

  /** Coordinators, its owner, and the person of an own calendar may list readers (LANDING 17). */
  public static boolean mayList(Person asker, Calendar calendar) {
    return asker.isCoordinator()
        || calendar.owner() instanceof Calendar.Owner.Own own && own.person().equals(asker.id());
  }

  public static String of(World world, Rendering rendering) {
    if (rendering.way() instanceof Rendering.Way.Feed) {
      return say("sight.anybody-with-address");
    }
    List<PersonId> people = List.copyOf(world.calendars().audience(rendering.id()).people());
    String names =
        people.stream()
            .limit(MOST_NAMES)
            .map(id -> name(world, id))
            .collect(Collectors.joining(", "));
    int more = people.size() - MOST_NAMES;
    boolean others = rendering.way() instanceof Rendering.Way.Copy copy && copy.others();
    return names
        + (more > 0 ? say("sight.and-more", more) : "")
        + (others ? say("sight.and-others-there") : "");
  }

  /** How one comes to read it, as the API says it: MEMBERS, SHARE, COPY or FEED. */
  public static String way(Rendering rendering) {
    if (rendering.way() instanceof Rendering.Way.Members) {
      return "MEMBERS";
    }
    if (rendering.way() instanceof Rendering.Way.Copy) {
      return "COPY";
    }
    return rendering.way() instanceof Rendering.Way.Share ? "SHARE" : "FEED";
  }

  /** Somebody's name. */
  public static String name(World world, PersonId id) {
    return world.crew().person(id).map(Person::name).orElse("somebody");
  }
}
