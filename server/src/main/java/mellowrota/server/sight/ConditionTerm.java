package mellowrota.server.sight;

import static java.util.stream.Collectors.toCollection;

import java.time.LocalTime;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.rule.Condition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.ValueTest;
import tools.jackson.databind.JsonNode;

/** The conditions of the rule language, once for how they are kept, sent, and written in files. */
public enum ConditionTerm {
  ALL(Value.PARTS, read -> new Condition.All(read.parts())),
  ANY(Value.PARTS, read -> new Condition.Any(read.parts())),
  NONE(Value.PARTS, read -> new Condition.None(read.parts())),
  KIND(Kind.class, read -> new Condition.KindIs(read.constants(Kind.class))),
  STATE(State.class, read -> new Condition.StateIs(read.constants(State.class))),
  TAG(Value.TEXT, read -> new Condition.Tagged(read.value().asString())),
  TEAM(Thing.TEAM, read -> new Condition.TeamIs(TeamId.of(read.value().asLong()))),
  PLACE(Thing.PLACE, read -> new Condition.PlaceIs(PlaceId.of(read.value().asLong()))),
  ROLE(Thing.ROLE, read -> new Condition.RolePresent(RoleId.of(read.value().asInt()))),
  DETAIL(Value.DETAIL, Read::detail),
  OVER(Value.COMPARED, read -> read.valued(ValueTest.OVER)),
  UNDER(Value.COMPARED, read -> read.valued(ValueTest.UNDER)),
  IS(Value.COMPARED, read -> read.valued(ValueTest.IS)),
  PRIVATE(Value.FLAG, read -> new Condition.IsPrivate()),
  MADE_BY(Thing.PERSON, read -> new Condition.MadeBy(PersonId.of(read.value().asLong()))),
  STARTS_BETWEEN(Value.HOURS, Read::hours),
  ALL_DAY(Value.FLAG, read -> new Condition.IsAllDay());

  /** What stands behind its name. */
  public enum Value {
    /** Conditions. */
    PARTS,
    /** Some of the constants of a closed set. */
    CONSTANTS,
    TEXT,
    /** The number of a thing of the house. */
    NUMBER,
    /** The name of a detail. */
    DETAIL,
    /** The name of a detail, and a value of its sort. */
    COMPARED,
    /** Two local times of day. */
    HOURS,
    /** True; it has no other value. */
    FLAG
  }

  /** What a condition may name by its number. */
  public enum Thing {
    TEAM,
    PLACE,
    ROLE,
    PERSON;

    /** Their names by their numbers. */
    public Map<Long, String> names(World world) {
      Map<Long, String> names = new LinkedHashMap<>();
      switch (this) {
        case TEAM -> world.crew().teams().forEach(one -> names.put(one.id().value(), one.name()));
        case PLACE -> world.placeList().forEach(one -> names.put(one.id().value(), one.name()));
        case ROLE -> world.roles().forEach(one -> names.put((long) one.id().value(), one.name()));
        default -> world.crew().people().forEach(one -> names.put(one.id().value(), one.name()));
      }
      return names;
    }

    /** What people call one. */
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private final Value value;
  private final Optional<Class<? extends Enum<?>>> constants;
  private final Optional<Thing> thing;
  private final Function<Read, Condition> read;

  ConditionTerm(Value value, Function<Read, Condition> read) {
    this(value, Optional.empty(), Optional.empty(), read);
  }

  ConditionTerm(Class<? extends Enum<?>> constants, Function<Read, Condition> read) {
    this(Value.CONSTANTS, Optional.of(constants), Optional.empty(), read);
  }

  ConditionTerm(Thing thing, Function<Read, Condition> read) {
    this(Value.NUMBER, Optional.empty(), Optional.of(thing), read);
  }

  ConditionTerm(
      Value value,
      Optional<Class<? extends Enum<?>>> constants,
      Optional<Thing> thing,
      Function<Read, Condition> read) {
    this.value = value;
    this.constants = constants;
    this.thing = thing;
    this.read = read;
  }

  public Value value() {
    return value;
  }

  /** The closed set that {@link Value#CONSTANTS} are of. */
  public Class<? extends Enum<?>> constants() {
    return constants.orElseThrow();
  }

  /** What {@link Value#NUMBER} is of. */
  public Thing thing() {
    return thing.orElseThrow();
  }

  /** As files write it. */
  public String words() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** As the API and what is kept call it. */
  public String field() {
    return camel(name());
  }

  static String camel(String constant) {
    String lower = constant.toLowerCase(Locale.ROOT);
    return java.util.regex.Pattern.compile("_(.)")
        .matcher(lower)
        .replaceAll(letter -> letter.group(1).toUpperCase(Locale.ROOT));
  }

  /** The one that the API calls so. */
  public static ConditionTerm of(String field) {
    return Arrays.stream(values())
        .filter(term -> term.field().equals(field))
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("no condition: " + field));
  }

  /** The condition that a kept node says, where details apply as these say. */
  static Condition read(JsonNode node, Details details) {
    String field = node.propertyNames().iterator().next();
    return of(field).read.apply(new Read(node.get(field), details));
  }

  /** What stands behind a kept condition's name. */
  private record Read(JsonNode value, Details details) {

    List<Condition> parts() {
      return value.valueStream().map(part -> ConditionTerm.read(part, details)).toList();
    }

    <E extends Enum<E>> Set<E> constants(Class<E> type) {
      return value
          .valueStream()
          .map(one -> Enum.valueOf(type, one.asString()))
          .collect(toCollection(() -> EnumSet.noneOf(type)));
    }

    Condition detail() {
      DetailKey key = new DetailKey(value.asString());
      return new Condition.DetailPresent(key, record -> details.applies(record, key));
    }

    /** Of a detail that is no more it never holds. */
    Condition valued(ValueTest test) {
      return details
          .find(new DetailKey(value.get(0).asString()))
          .<Condition>map(
              one -> {
                String than = value.get(1).asString();
                return new Condition.DetailValued(one, test, one.read(than).value().orElse(than));
              })
          .orElse(new Condition.Any(List.of()));
    }

    Condition hours() {
      return new Condition.StartsBetween(
          LocalTime.parse(value.get(0).asString()), LocalTime.parse(value.get(1).asString()));
    }
  }
}
