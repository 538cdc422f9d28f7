package mellowrota.server.deadlines;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.deadline.Comparison;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.people.Holder;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.RecordView;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;

/** What would become of sets of deadlines, told to a coordinator before it is done. */
final class DeadlineSetLooks {

  private DeadlineSetLooks() {}

  @Schema(name = "DeadlineSetLookLine")
  record LineView(
      String step,
      Comparison.Kind kind,
      Reckoned.Standing standing,
      RecordView.@Nullable DueView before,
      RecordView.@Nullable DueView after,
      @Nullable String sum,
      @Nullable String why,
      boolean past,
      @Schema(description = "Why its date is no working day; empty text: by the week")
          @Nullable String off,
      @Schema(description = "No holidays are kept of the year of its date") boolean holidaysUnknown,
      @Schema(description = "Other steps of the set on that day") List<String> sameDay,
      List<String> people) {}

  @Schema(name = "DeadlineSetLook")
  record LookView(
      @Nullable Long set,
      String name,
      String keyDateName,
      RecordView.@Nullable DueView keyDateBefore,
      RecordView.@Nullable DueView keyDate,
      List<LineView> lines,
      Map<Comparison.Kind, Integer> counts,
      @Schema(description = "Teams that would see what the Lead sees") List<String> teamsLead) {}

  @Schema(name = "DeadlineSetsLook")
  record LooksView(
      List<LookView> sets,
      @Schema(description = "How many steps fall in each class, over all sets")
          Map<Comparison.Kind, Integer> counts,
      @Schema(description = "On how many calendars they stand") int calendars,
      @Schema(description = "Who has them") List<String> people) {}

  /** A plan, of a set that is there or is to be made. */
  record Planned(Optional<KeptSet> set, DeadlineSetPlan plan) {}

  /** What would become of sets, for a coordinator. */
  static LooksView of(Ground ground, List<Planned> all) {
    World world = ground.world;
    Map<Comparison.Kind, Integer> counts = new EnumMap<>(Comparison.Kind.class);
    Set<CalendarId> calendars = new HashSet<>();
    List<Assignment> people = new ArrayList<>();
    List<LookView> looks = new ArrayList<>();
    for (Planned one : all) {
      LookView look = look(ground, one);
      look.counts().forEach((kind, count) -> counts.merge(kind, count, Integer::sum));
      looks.add(look);
      one.plan().people().forEach(people::add);
      for (DeadlineSetPlan.Deadline deadline : one.plan().deadlines()) {
        if (deadline.isMade() || deadline.changes()) {
          touched(deadline).forEach(it -> calendars.addAll(calendars(world, it)));
        }
      }
    }
    return new LooksView(looks, counts, calendars.size(), DeadlineSetViews.people(world, people));
  }

  /** As it is and as it would be; where only its date moves it stands where it stood. */
  private static Stream<WorkRecord> touched(DeadlineSetPlan.Deadline deadline) {
    boolean stands =
        deadline.before().map(WorkRecord::state).equals(deadline.after().map(WorkRecord::state));
    return Stream.concat(
        stands ? Stream.empty() : deadline.before().stream(), deadline.after().stream());
  }

  private static List<CalendarId> calendars(World world, WorkRecord record) {
    return world.router().land(record).stream()
        .map(landing -> landing.entry().key().calendar())
        .toList();
  }

  private static LookView look(Ground ground, Planned one) {
    DeadlineSetPlan plan = one.plan();
    World world = ground.world;
    SumWords words = DeadlineSetViews.words(plan.to().zone(), plan.next().keyDate());
    Map<Name, DeadlineSetPlan.Deadline> deadlines = new HashMap<>();
    plan.deadlines().forEach(it -> deadlines.put(it.step(), it));
    Map<Comparison.Kind, Integer> counts = new EnumMap<>(Comparison.Kind.class);
    List<LineView> lines = new ArrayList<>();
    for (Comparison line : plan.lines()) {
      counts.merge(line.kind(), 1, Integer::sum);
      Optional<WorkRecord> deadline =
          Optional.ofNullable(deadlines.get(line.step())).flatMap(DeadlineSetPlan.Deadline::after);
      lines.add(
          new LineView(
              line.step().text(),
              line.kind(),
              line.after().or(line::before).orElseThrow().standing(),
              line.before()
                  .flatMap(Reckoned::date)
                  .map(it -> DeadlineSetViews.due(it, world))
                  .orElse(null),
              line.after()
                  .flatMap(Reckoned::date)
                  .map(it -> DeadlineSetViews.due(it, world))
                  .orElse(null),
              line.after().map(it -> DeadlineSetViews.sum(words, it)).orElse(null),
              line.after()
                  .filter(it -> it.date().isEmpty())
                  .flatMap(Reckoned::why)
                  .map(SumWords::said)
                  .orElse(null),
              line.past(),
              line.off().map(WorkingDays.Off::why).map(why -> why.orElse("")).orElse(null),
              line.after()
                  .flatMap(Reckoned::date)
                  .filter(it -> DeadlineSetViews.unknown(ground, plan.to(), it))
                  .isPresent(),
              line.sameDay().stream().map(Name::text).toList(),
              deadline
                  .map(it -> DeadlineSetViews.people(world, it.assignments()))
                  .orElse(List.of())));
    }
    return new LookView(
        one.set().map(KeptSet::id).orElse(null),
        plan.chain().name().text(),
        plan.chain().keyDate().text(),
        one.set()
            .flatMap(set -> set.state().keyDate())
            .map(it -> DeadlineSetViews.due(it, world))
            .orElse(null),
        plan.next().keyDate().map(it -> DeadlineSetViews.due(it, world)).orElse(null),
        lines,
        counts,
        teamsLead(world, plan));
  }

  private static List<String> teamsLead(World world, DeadlineSetPlan plan) {
    return DeadlineSetViews.people(
        world,
        plan.people()
            .filter(one -> one.role().equals(RoleId.LEAD))
            .filter(one -> one.holder() instanceof Holder.WholeTeam)
            .toList());
  }
}
