package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.RoleId;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;

/** Whom a detail is for, as it is told and sent. */
final class ForSets {

  private ForSets() {}

  /**
   * A set of readers.
   *
   * @param everyone all of them and every role to come; nothing else is said then
   * @param roles by number
   */
  @Schema(name = "For")
  record ForView(
      @Nullable Boolean everyone,
      @Nullable Boolean office,
      @Nullable Boolean crew,
      @Nullable Boolean outside,
      @Nullable List<Integer> roles) {}

  static ForView view(ForSet set) {
    if (set.equals(ForSet.EVERYONE)) {
      return new ForView(true, null, null, null, null);
    }
    List<Integer> roles =
        IntStream.range(0, RoleId.MOST)
            .filter(role -> (set.bits() & Capacities.role(RoleId.of(role))) != 0)
            .boxed()
            .toList();
    return new ForView(
        null,
        flag(set, Capacities.OFFICE),
        flag(set, Capacities.CREW),
        flag(set, Capacities.OUTSIDE),
        roles.isEmpty() ? null : roles);
  }

  private static Boolean flag(ForSet set, long bit) {
    return (set.bits() & bit) != 0 ? true : null;
  }

  /** The set that was told so. */
  static ForSet of(ForView view) {
    if (Boolean.TRUE.equals(view.everyone())) {
      return ForSet.EVERYONE;
    }
    long bits = Boolean.TRUE.equals(view.office()) ? Capacities.OFFICE : 0;
    bits |= Boolean.TRUE.equals(view.crew()) ? Capacities.CREW : 0;
    bits |= Boolean.TRUE.equals(view.outside()) ? Capacities.OUTSIDE : 0;
    for (int role : Optional.ofNullable(view.roles()).orElse(List.of())) {
      bits |= Capacities.role(RoleId.of(role));
    }
    return new ForSet(bits);
  }

  /** Reads the set in a field; a set of nobody is a fault. */
  static ForSet read(World world, Input item, String field) {
    Optional<Input> sent = item.object(field, ForView.class);
    if (sent.isEmpty()) {
      if (!item.namesFault(field)) {
        item.fault(field, say("rules.is-missing-say-who"));
      }
      return ForSet.NOBODY;
    }
    Input set = sent.get();
    if (set.flag("everyone").orElse(false)) {
      return ForSet.EVERYONE;
    }
    List<Long> roles = set.numbers("roles", RoleId.MOST);
    if (!roles.stream().allMatch(world::isRole)) {
      set.fault("roles", say("rules.must-hold-roles-see"));
      return ForSet.NOBODY;
    }
    ForSet read =
        of(
            new ForView(
                null,
                set.flag("office").orElse(false),
                set.flag("crew").orElse(false),
                set.flag("outside").orElse(false),
                roles.stream().map(Long::intValue).toList()));
    if (read.bits() == 0 && !item.namesFault(field)) {
      item.fault(field, say("rules.is-empty-a-detail"));
    }
    return read;
  }
}
