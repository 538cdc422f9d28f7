package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Target;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.server.records.ForWords;
import mellowrota.server.sight.World;

/**
 * Tells which rules test what readers of their calendars may not see: that an entry stands there
 * may tell of it (LANDING 4). Judged by what readers are everywhere; on own calendars they have a
 * role besides.
 */
final class RuleWarnings {

  private final World world;

  private RuleWarnings(World world) {
    this.world = world;
  }

  /** In the order of the rules; those switched off test nothing. */
  static List<String> of(World world) {
    RuleWarnings warnings = new RuleWarnings(world);
    List<String> found = new ArrayList<>();
    int number = 0;
    for (LandingRule rule : world.rules()) {
      number++;
      if (rule.on()) {
        for (DetailKey detail : new TreeSet<>(rule.when().tests())) {
          Optional<String> reader = warnings.reader(rule, world.details().forWhom(detail));
          if (reader.isPresent()) {
            found.add(warnings.words(number, detail, reader.get()));
          }
        }
      }
    }
    return found;
  }

  private String words(int number, DetailKey detail, String reader) {
    String label = world.details().find(detail).map(DetailDefinition::label).orElse(detail.name());
    String readers = ForWords.of(world.details().forWhom(detail), world.roles());
    return say("rules.tests-what-readers-may-not-see", number, label, readers, reader);
  }

  /** Somebody who reads one of the rule's calendars and may not see it, in words. */
  private Optional<String> reader(LandingRule rule, ForSet set) {
    for (Calendar calendar : world.calendars().all()) {
      if (rule.targets().stream().noneMatch(target -> names(target, calendar))) {
        continue;
      }
      for (Rendering rendering : world.calendars().renderingsOf(calendar.id())) {
        if (rendering.way() instanceof Rendering.Way.Feed && !set.allows(Capacities.NOBODY_KNOWN)) {
          return Optional.of(say("rules.anybody-who-has-a", calendar.name()));
        }
        Optional<Person> kept =
            world.calendars().audience(rendering.id()).people().stream()
                .flatMap(id -> world.crew().person(id).stream())
                .filter(person -> !set.allows(person.everywhere()))
                .findFirst();
        if (kept.isPresent()) {
          return Optional.of(say("rules.who-reads", kept.get().name(), calendar.name()));
        }
      }
    }
    return Optional.empty();
  }

  private static boolean names(Target target, Calendar calendar) {
    return switch (calendar.owner().sort()) {
      case MASTER -> target instanceof Target.Master;
      case TEAM -> target instanceof Target.TeamsOf;
      case PLACE -> target instanceof Target.ThePlaces;
      case OWN -> false;
      default -> target instanceof Target.One one && one.calendar().equals(calendar.id());
    };
  }
}
