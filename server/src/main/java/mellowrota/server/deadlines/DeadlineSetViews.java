package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.people.Person;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Due;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordView;
import mellowrota.server.records.RecordViews;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Sets of deadlines for one person. Of a step whose deadline they may not open nothing is told;
 * sums name other steps, so where anything of a set is hidden from somebody none is told them.
 */
@Component
@RequiredArgsConstructor
class DeadlineSetViews {

  /** What dates, sums and people of deadlines tell of a record. */
  static final Set<DetailKey> TOLD =
      Set.of(DetailKey.TIMES, DetailKey.TITLE, DetailKey.PLACE, DetailKey.PEOPLE);

  private final RecordAccess access;

  @Schema(name = "DeadlineSetWork")
  record WorkView(long id, @Nullable String ref, @Nullable String title) {}

  @Schema(name = "DeadlineSetStep")
  record StepView(
      @Nullable String name,
      @Nullable Long record,
      Reckoned.Standing standing,
      RecordView.@Nullable DueView date,
      @Schema(description = "How it was reckoned, in words") @With @Nullable String sum,
      @Schema(description = "Why there is no date, in words") @Nullable String why,
      @Schema(description = "Who is on it") @Nullable List<String> people,
      boolean late,
      @Schema(description = "No holidays are kept of the year of its date")
          @Nullable Boolean holidaysUnknown) {}

  @Schema(name = "DeadlineSetOffer")
  record OfferView(
      @Schema(description = "Its chain has a newer text") boolean newerText,
      @Schema(description = "The date that it follows is another by now") boolean keyDate,
      @Schema(description = "How many of its dates would be others") int changes) {}

  @Schema(name = "DeadlineSet")
  record SetView(
      long id,
      @Nullable Long chain,
      @Nullable String name,
      @Schema(description = "What the key date is called") @Nullable String keyDateName,
      @Nullable WorkView work,
      KeptSet.Follows.@Nullable What follows,
      @Nullable String followsName,
      RecordView.@Nullable PlaceView place,
      @Nullable String zone,
      RecordView.@Nullable DueView keyDate,
      @Nullable String method,
      boolean asksMethod,
      List<DeadlineSetInput.AnswerSchema> answers,
      @With List<StepView> steps,
      @With @Nullable OfferView offer,
      @Schema(description = "Its caller may change it") boolean mayChange,
      @With String tag)
      implements AsSeen.Tagged<SetView> {}

  @Schema(name = "DeadlineSetPage")
  record PageView(List<SetView> sets, @Nullable String next) {}

  @Schema(name = "DeadlineSetsAnswer")
  record AnswerView(
      long act, List<Long> sets, @Nullable Long entries, @Nullable Integer calendars) {}

  // ---- A set for one person --------------------------------------------------------------------

  /** What one person may know of a set. */
  private static final class Seen {
    private final Ground ground;
    private final KeptSet set;
    private final Map<RecordId, RecordAccess.Standing> standings;
    private final Person asker;
    private final boolean office;
    private final boolean whole;

    Seen(Ground ground, KeptSet set, Map<RecordId, RecordAccess.Standing> standings, Person asker) {
      this.ground = ground;
      this.set = set;
      this.standings = standings;
      this.asker = asker;
      office = hasOffice();
      whole = office && sees(set.to().record().stream()) && sees(deadlines().stream());
    }

    Ground ground() {
      return ground;
    }

    KeptSet set() {
      return set;
    }

    Person asker() {
      return asker;
    }

    /**
     * Whether the set is told as the office has it: to coordinators, and to whoever has office
     * rights on the work, or without work on all deadlines.
     */
    boolean isOffice() {
      return office;
    }

    /** Whether nothing of it is hidden from them. */
    boolean isWhole() {
      return whole;
    }

    private boolean sees(Stream<RecordId> records) {
      return records.allMatch(
          id -> of(Optional.of(id)).filter(one -> TOLD.stream().allMatch(one::sees)).isPresent());
    }

    Optional<RecordAccess.Standing> of(Optional<RecordId> id) {
      return id.map(standings::get).filter(RecordAccess.Standing::opens);
    }

    private boolean hasOffice() {
      if (asker.isCoordinator()) {
        return true;
      }
      if (set.to().record().isPresent()) {
        return of(set.to().record()).filter(RecordAccess.Standing::isOffice).isPresent();
      }
      List<RecordId> all = deadlines();
      return !all.isEmpty()
          && all.stream()
              .allMatch(
                  id -> of(Optional.of(id)).filter(RecordAccess.Standing::isOffice).isPresent());
    }

    private List<RecordId> deadlines() {
      return set.state().lines().stream().flatMap(line -> line.record().stream()).toList();
    }

    boolean seesKeyDate() {
      Optional<RecordAccess.Standing> work = of(set.to().record());
      return set.to().record().isPresent()
          ? work.filter(one -> one.sees(DetailKey.TIMES)).isPresent()
              && (isOffice() || set.to().follows().isPresent())
          : isOffice();
    }
  }

  private List<Seen> standings(Ground ground, Collection<KeptSet> sets, Person asker) {
    Map<RecordId, WorkRecord> about = new TreeMap<>();
    for (KeptSet set : sets) {
      ground.record(set.to().record()).ifPresent(one -> about.put(one.id(), one));
      set.state()
          .lines()
          .forEach(line -> ground.record(line.record()).ifPresent(one -> about.put(one.id(), one)));
    }
    Map<RecordId, RecordAccess.Standing> standings = new HashMap<>();
    access
        .standings(ground.world, asker, about.values())
        .forEach(one -> standings.put(one.record().id(), one));
    return sets.stream().map(set -> new Seen(ground, set, standings, asker)).toList();
  }

  /**
   * Goes on where nothing of these sets is hidden from somebody.
   *
   * @param tagged which of them are told
   * @return those, each with its tag, by number
   */
  Map<Long, SetView> changeable(
      Ground ground, Collection<KeptSet> sets, Person asker, Predicate<KeptSet> tagged) {
    Map<Long, SetView> found = new HashMap<>();
    for (Seen seen : standings(ground, sets, asker)) {
      if (!seen.isWhole()) {
        throw Problem.forbidden(say("deadlines.something-is-hidden"));
      }
      if (tagged.test(seen.set())) {
        view(seen).map(AsSeen::tagged).ifPresent(view -> found.put(view.id(), view));
      }
    }
    return found;
  }

  /**
   * Those of the sets of which they may know anything, each with its tag; with what a fresh
   * reckoning would change where nothing of a set is hidden from them.
   *
   * @param sums with sums too
   */
  List<SetView> told(Ground ground, Collection<KeptSet> sets, Person asker, boolean sums) {
    List<SetView> found = new ArrayList<>();
    for (Seen seen : standings(ground, sets, asker)) {
      Optional<SetView> view = view(seen).map(AsSeen::tagged);
      if (seen.isWhole()) {
        view = view.map(it -> (sums ? withSums(seen, it) : it).withOffer(offer(seen)));
      }
      view.ifPresent(found::add);
    }
    return found;
  }

  private static Optional<SetView> view(Seen seen) {
    KeptSet set = seen.set();
    World world = seen.ground().world;
    boolean office = seen.isOffice();
    Chain chain = seen.ground().chain(set.state().chainVersion());
    List<StepView> steps = steps(seen, office);
    if (steps.isEmpty() && !office) {
      return Optional.empty();
    }
    Optional<RecordAccess.Standing> work = seen.of(set.to().record());
    return Optional.of(
        new SetView(
            set.id(),
            office ? set.chain() : null,
            office ? chain.name().text() : null,
            seen.seesKeyDate() ? chain.keyDate().text() : null,
            work.map(DeadlineSetViews::work).orElse(null),
            seen.seesKeyDate() ? set.to().follows().map(KeptSet.Follows::what).orElse(null) : null,
            seen.seesKeyDate() ? set.to().follows().map(KeptSet.Follows::name).orElse(null) : null,
            place(seen, office),
            office ? set.to().zone().getId() : null,
            seen.seesKeyDate() ? keyDate(seen).map(due -> due(due, world)).orElse(null) : null,
            office
                ? seen.ground().method(set.state().method()).map(m -> m.name().text()).orElse(null)
                : null,
            office && asksMethod(chain),
            office ? answers(chain, set.state()) : List.of(),
            steps,
            null,
            seen.asker().isCoordinator() && seen.isWhole() && !set.state().isOff(),
            ""));
  }

  /** Whoever sees no more than the work is told what that says now. */
  private static Optional<Due> keyDate(Seen seen) {
    KeptSet set = seen.set();
    return seen.isOffice() ? set.state().keyDate() : seen.ground().keyDate(set.to(), set.state());
  }

  private static WorkView work(RecordAccess.Standing one) {
    return new WorkView(
        one.record().id().value(),
        one.sees(DetailKey.REF) ? one.record().ref() : null,
        one.sees(DetailKey.TITLE) ? one.record().text(DetailKey.TITLE).orElse(null) : null);
  }

  private static RecordView.PlaceView place(Seen seen, boolean office) {
    Optional<RecordAccess.Standing> work = seen.of(seen.set().to().record());
    boolean sees =
        seen.set().to().record().isPresent()
            ? work.filter(one -> one.sees(DetailKey.PLACE)).isPresent()
            : office;
    return seen.set()
        .to()
        .place()
        .filter(id -> sees)
        .flatMap(id -> RecordViews.place(seen.ground().world, id))
        .orElse(null);
  }

  static boolean asksMethod(Chain chain) {
    return chain.steps().stream()
        .anyMatch(step -> step.by().filter(by -> by.method().isEmpty()).isPresent());
  }

  private static List<DeadlineSetInput.AnswerSchema> answers(Chain chain, KeptSet.State state) {
    return chain.questions().stream()
        .map(one -> new DeadlineSetInput.AnswerSchema(one.text(), state.answers().get(one)))
        .toList();
  }

  private static List<StepView> steps(Seen seen, boolean office) {
    Map<Name, KeptSet.Line> lines = seen.set().state().byStep();
    List<StepView> found = new ArrayList<>();
    for (Reckoned one : seen.ground().stands(seen.set().to(), seen.set().state())) {
      Optional<RecordId> id =
          Optional.ofNullable(lines.get(one.step().name())).flatMap(KeptSet.Line::record);
      Optional<RecordAccess.Standing> standing = seen.of(id);
      if (id.isPresent() ? standing.isPresent() : office) {
        found.add(step(seen, one, standing, office));
      }
    }
    return found;
  }

  private static StepView step(
      Seen seen, Reckoned one, Optional<RecordAccess.Standing> standing, boolean office) {
    World world = seen.ground().world;
    boolean times = standing.map(it -> it.sees(DetailKey.TIMES)).orElse(office);
    boolean title = standing.map(it -> it.sees(DetailKey.TITLE)).orElse(office);
    Optional<Due> date = one.date().filter(due -> times);
    boolean done = standing.filter(it -> it.record().isDone()).isPresent();
    return new StepView(
        title
            ? standing
                .flatMap(it -> it.record().text(DetailKey.TITLE))
                .orElse(one.step().name().text())
            : null,
        standing.map(it -> it.record().id().value()).orElse(null),
        times && office
            ? one.standing()
            : date.isPresent() && done ? Reckoned.Standing.DONE : Reckoned.Standing.RECKONED,
        date.map(due -> due(due, world)).orElse(null),
        null,
        seen.isWhole() && one.date().isEmpty() ? one.why().map(SumWords::said).orElse(null) : null,
        standing
            .filter(it -> it.sees(DetailKey.PEOPLE))
            .map(it -> people(world, it.record().assignments()))
            .orElse(null),
        date.filter(
                due -> !done && !due.overdueFrom(world.house().zone()).isAfter(seen.ground().now))
            .isPresent(),
        office && date.filter(due -> unknown(seen.ground(), seen.set().to(), due)).isPresent()
            ? true
            : null);
  }

  static RecordView.DueView due(Due due, World world) {
    return RecordViews.due(due, world.house().zone());
  }

  /** Whether the year of a date lies beyond those for which holidays are kept (CHAINS 8). */
  static boolean unknown(Ground ground, KeptSet.Belongs to, Due due) {
    return !ground.world.places().workDays(to.place()).knowsHolidays(due.day(to.zone()));
  }

  static List<String> people(World world, Collection<Assignment> assignments) {
    return assignments.stream()
        .map(one -> RecordViews.holderName(world, one.holder()))
        .filter(name -> !name.isEmpty())
        .distinct()
        .sorted()
        .toList();
  }

  private static SetView withSums(Seen seen, SetView view) {
    KeptSet set = seen.set();
    List<Reckoned> stands = seen.ground().stands(set.to(), set.state());
    SumWords words = words(set.to().zone(), set.state().keyDate());
    List<StepView> told = new ArrayList<>();
    for (int i = 0; i < stands.size(); i++) {
      told.add(view.steps().get(i).withSum(sum(words, stands.get(i))));
    }
    return view.withSteps(told);
  }

  static SumWords words(ZoneId zone, Optional<Due> keyDate) {
    return new SumWords(zone, keyDate.map(due -> due.day(zone)).map(LocalDate::getYear).orElse(0));
  }

  /** How a date comes about that is the chain's own. */
  static String sum(SumWords words, Reckoned one) {
    boolean isReckoned =
        one.standing() == Reckoned.Standing.RECKONED
            && one.sum().isPresent()
            && one.date().filter(due -> due.isSame(one.sum().get().result())).isPresent();
    return isReckoned ? one.sum().map(words::said).orElse(null) : null;
  }

  private static @Nullable OfferView offer(Seen seen) {
    Ground ground = seen.ground();
    KeptSet set = seen.set();
    if (set.state().isOff()) {
      return null;
    }
    DeadlineSetPlan plan =
        DeadlineSetPlan.changing(ground, set, DeadlineSetChange.NEWEST, seen.asker().id());
    boolean newer = plan.next().chainVersion() != set.state().chainVersion();
    boolean keyDate = !plan.next().keyDate().equals(set.state().keyDate());
    int changes =
        (int) plan.deadlines().stream().filter(one -> one.isMade() || one.changes()).count();
    return newer || keyDate || changes > 0 ? new OfferView(newer, keyDate, changes) : null;
  }
}
