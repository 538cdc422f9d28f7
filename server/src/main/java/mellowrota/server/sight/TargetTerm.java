package mellowrota.server.sight;

import java.util.Arrays;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.RoleId;
import mellowrota.core.rule.Target;
import tools.jackson.databind.JsonNode;

/** Where a rule may land, once for how that is kept, sent, and written in files. */
public enum TargetTerm {
  OWN_OF(Value.ROLES, "own calendars of", value -> new Target.OwnOf(roles(value))),
  TEAMS_OF(Value.ROLES, "calendars of the teams of", value -> new Target.TeamsOf(roles(value))),
  THE_PLACES(Value.FLAG, "the place", value -> new Target.ThePlaces()),
  MASTER(Value.FLAG, "Master", value -> new Target.Master()),
  CALENDAR(Value.CALENDAR, "calendar", value -> new Target.One(CalendarId.of(value.asLong())));

  /** What stands behind its name. */
  public enum Value {
    /** Numbers of roles. */
    ROLES,
    /** The number of a date list or a named calendar. */
    CALENDAR,
    /** True; it has no other value. */
    FLAG
  }

  private final Value value;
  private final String words;
  private final Function<JsonNode, Target> read;

  TargetTerm(Value value, String words, Function<JsonNode, Target> read) {
    this.value = value;
    this.words = words;
    this.read = read;
  }

  public Value value() {
    return value;
  }

  /** As files write it. */
  public String words() {
    return words;
  }

  /** As the API and what is kept call it. */
  public String field() {
    return ConditionTerm.camel(name());
  }

  /** The one that the API calls so. */
  public static TargetTerm of(String field) {
    return Arrays.stream(values())
        .filter(term -> term.field().equals(field))
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("no target: " + field));
  }

  /** The target that a kept node says. */
  static Target read(JsonNode node) {
    String field = node.propertyNames().iterator().next();
    return of(field).read.apply(node.get(field));
  }

  private static Set<RoleId> roles(JsonNode list) {
    return list.valueStream().map(one -> RoleId.of(one.asInt())).collect(Collectors.toSet());
  }
}
