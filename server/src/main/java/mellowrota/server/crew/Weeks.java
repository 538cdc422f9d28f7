package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import java.time.DayOfWeek;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.time.WorkingWeek;
import mellowrota.server.platform.Input;

/** Working weeks as they are sent and kept: MONDAY to SUNDAY, kept with commas between them. */
public final class Weeks {

  private Weeks() {}

  /** As kept. */
  public static String kept(WorkingWeek week) {
    return days(week).stream().map(DayOfWeek::name).collect(Collectors.joining(","));
  }

  /** The days it names, Monday first. */
  public static List<DayOfWeek> days(WorkingWeek week) {
    return week.days().stream().sorted().toList();
  }

  public static WorkingWeek of(String kept) {
    return new WorkingWeek(
        Arrays.stream(kept.split(",")).map(DayOfWeek::valueOf).collect(Collectors.toSet()));
  }

  /** What a caller sent; empty with a fault said where it is none. */
  public static Optional<WorkingWeek> sent(Input input, String field) {
    List<String> known = Arrays.stream(DayOfWeek.values()).map(DayOfWeek::name).toList();
    List<String> sent = input.texts(field, known.size(), 10);
    if (!known.containsAll(sent)) {
      input.fault(field, say("common.must-hold-only", String.join(", ", known)));
      return Optional.empty();
    }
    if (sent.isEmpty()) {
      if (!input.namesFault(field)) {
        input.fault(field, say("crew.is-empty-choose-at"));
      }
      return Optional.empty();
    }
    Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
    sent.forEach(day -> days.add(DayOfWeek.valueOf(day)));
    return Optional.of(new WorkingWeek(days));
  }
}
