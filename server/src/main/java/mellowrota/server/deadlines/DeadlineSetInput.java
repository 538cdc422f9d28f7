package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.Name;
import mellowrota.core.people.Person;
import mellowrota.core.work.Due;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.DueInput;
import mellowrota.server.records.RecordSchemas;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** What is sent of sets of deadlines. */
final class DeadlineSetInput {

  /** In one act. */
  static final int MOST = 400;

  private static final int MOST_STEPS = 200;

  private DeadlineSetInput() {}

  @Schema(name = "DeadlineSetAnswer")
  record AnswerSchema(
      String question,
      @Schema(nullable = true, description = "null: it is not answered") @Nullable Boolean yes) {}

  @Schema(name = "DeadlineSetFollows")
  record FollowsSchema(
      KeptSet.Follows.What what,
      @Schema(description = "Of the named date") @Nullable String name) {}

  @Schema(name = "DeadlineSetStepChange")
  record StepSchema(
      String step,
      @Nullable Boolean leftOut,
      @Schema(nullable = true, description = "Set by hand; null: it goes by the chain again")
          RecordSchemas.@Nullable DueSchema date,
      @Schema(description = "It stays where it stands, from now on by hand")
          @Nullable Boolean keep) {}

  @Schema(name = "DeadlineSetMaking")
  record MakingSchema(
      long chain,
      @Schema(description = "The work that the key date belongs to") @Nullable Long record,
      @Schema(description = "The date of that work that the key date follows; else it is typed")
          @Nullable FollowsSchema follows,
      @Schema(description = "Where there is no work") @Nullable Long place,
      RecordSchemas.@Nullable DueSchema keyDate,
      @Nullable String method,
      @Nullable List<AnswerSchema> answers,
      @Nullable List<StepSchema> steps) {}

  @Schema(name = "DeadlineSetsMaking")
  record MakingsSchema(List<MakingSchema> sets, @Nullable String reason) {}

  @Schema(name = "DeadlineSetMove")
  record MovingSchema(
      long set,
      @Schema(description = "The tag of what was seen of it, or *") String ifMatch,
      @Schema(nullable = true, description = "null: it is not known any more")
          RecordSchemas.@Nullable DueSchema keyDate,
      @Schema(nullable = true, description = "null: none is chosen") @Nullable String method,
      @Nullable List<AnswerSchema> answers,
      @Schema(description = "Goes by the latest text of its chain") @Nullable Boolean newest,
      @Nullable List<StepSchema> steps) {}

  @Schema(name = "DeadlineSetsMove")
  record MovingsSchema(List<MovingSchema> sets, @Nullable String reason) {}

  @Schema(name = "DeadlineSetOff")
  record OffSchema(
      long set, @Schema(description = "The tag of what was seen of it, or *") String ifMatch) {}

  @Schema(name = "DeadlineSetsOff")
  record OffsSchema(List<OffSchema> sets, @Nullable String reason) {}

  /** Sets that are to be made, with what they rest on. */
  record Makings(Ground ground, List<DeadlineSets.Making> all, String reason) {}

  /** Sets that are to be changed. */
  record Movings(List<DeadlineSets.Moving> all, String reason) {

    /** What is said of a set must be about it. */
    void requireFits(Ground ground, KeptSet set, DeadlineSetChange change) {
      if (change.keyDate().isPresent() && set.to().follows().isPresent()) {
        throw Problem.of(409, "key-date-follows", say("deadlines.key-date-follows"));
      }
      long version = change.newest() ? ground.latest(set.chain()).id() : set.state().chainVersion();
      fits(ground.chain(version), change)
          .ifPresent(
              name -> {
                throw Problem.badRequest(say("deadlines.the-chain-has-no", name));
              });
    }
  }

  /** A question or a step that the chain does not have. */
  private static Optional<Name> fits(Chain chain, DeadlineSetChange change) {
    Set<Name> questions = new HashSet<>(chain.questions());
    Set<Name> steps = new HashSet<>(chain.steps().stream().map(step -> step.name()).toList());
    return change.answers().keySet().stream()
        .filter(one -> !questions.contains(one))
        .findFirst()
        .or(() -> change.steps().keySet().stream().filter(one -> !steps.contains(one)).findFirst());
  }

  // ---- Making ----------------------------------------------------------------------------------

  static Makings makings(DeadlineSets sets, World world, Person asker, Instant now, JsonNode body) {
    Input input = Input.of(body, MakingsSchema.class);
    List<Input> all = input.objects("sets", MOST, MakingSchema.class);
    requireSome(input, all);
    Set<Long> chains = new TreeSet<>();
    Set<RecordId> about = new TreeSet<>();
    for (Input one : all) {
      one.number("chain").ifPresent(chains::add);
      one.number("record").ifPresent(id -> about.add(RecordId.of(id)));
    }
    Ground ground = sets.ground(world, asker, now, chains, about);
    List<DeadlineSets.Making> found = new ArrayList<>();
    for (Input one : all) {
      making(ground, one).ifPresent(found::add);
    }
    String reason = input.text("reason", 300);
    input.check();
    return new Makings(ground, found, reason);
  }

  private static void requireSome(Input input, List<Input> all) {
    if (all.isEmpty() && !input.namesFault("sets")) {
      input.fault("sets", say("deadlines.name-at-least-one-set"));
    }
  }

  private static Optional<DeadlineSets.Making> making(Ground ground, Input one) {
    OptionalLong chain = one.number("chain");
    Optional<Chains.Version> text = chain.stream().boxed().flatMap(ground::latestOf).findFirst();
    if (text.isEmpty()) {
      one.fault("chain", say("deadlines.is-not-a-chain"));
    }
    Optional<WorkRecord> work = Optional.empty();
    if (one.number("record").isPresent()) {
      work = ground.record(Optional.of(RecordId.of(one.number("record").getAsLong())));
      if (work.isEmpty()) {
        one.fault("record", say("deadlines.is-not-a-record"));
      }
    }
    Optional<KeptSet.Follows> follows = follows(one);
    if (follows.isPresent() && work.isEmpty() && !one.namesFault("record")) {
      one.fault("follows", say("deadlines.follows-needs-work"));
    }
    if (follows.isPresent() && one.has("keyDate")) {
      one.fault("keyDate", say("deadlines.key-date-follows"));
    }
    Optional<PlaceId> place = place(ground, one, work);
    ZoneId zone = work.map(ground::zone).orElseGet(() -> ground.zone(place));
    KeptSet.Belongs to = new KeptSet.Belongs(work.map(WorkRecord::id), follows, place, zone);
    DeadlineSetChange change = change(ground.methods, one, zone);
    if (text.isEmpty()) {
      return Optional.empty();
    }
    fits(ground.chain(text.get().id()), change)
        .ifPresent(name -> one.fault("", say("deadlines.the-chain-has-no", name)));
    return Optional.of(
        new DeadlineSets.Making(chain.getAsLong(), to, KeptSet.State.of(text.get().id()), change));
  }

  private static Optional<KeptSet.Follows> follows(Input one) {
    Optional<Input> sent = one.object("follows", FollowsSchema.class);
    if (sent.isEmpty()) {
      return Optional.empty();
    }
    Optional<KeptSet.Follows.What> what =
        sent.get().requiredChoice("what", KeptSet.Follows.What.class);
    String name =
        what.filter(KeptSet.Follows.What.DATE::equals).isPresent()
            ? sent.get().required("name", 60)
            : "";
    return what.map(it -> new KeptSet.Follows(it, name));
  }

  /** That of the work; without work, the one that is named. */
  private static Optional<PlaceId> place(Ground ground, Input one, Optional<WorkRecord> work) {
    OptionalLong sent = one.number("place");
    if (work.isPresent()) {
      if (sent.isPresent()) {
        one.fault("place", say("deadlines.place-is-the-works"));
      }
      return work.get().place();
    }
    Optional<PlaceId> place = sent.stream().mapToObj(PlaceId::of).findFirst();
    if (place.isPresent() && place.flatMap(ground.world.places()::find).isEmpty()) {
      one.fault("place", say("common.is-not-a-place"));
    }
    return place;
  }

  // ---- Moving ----------------------------------------------------------------------------------

  static Movings movings(DeadlineSets sets, JsonNode body) {
    List<Chains.KeptMethod> methods = sets.methods();
    return movings(
        sets,
        Input.of(body, MovingsSchema.class),
        MovingSchema.class,
        body,
        (one, set) -> change(methods, one, set.to().zone()));
  }

  static Movings offs(DeadlineSets sets, JsonNode body) {
    return movings(
        sets,
        Input.of(body, OffsSchema.class),
        OffSchema.class,
        body,
        (one, set) -> DeadlineSetChange.OFF);
  }

  private static Movings movings(
      DeadlineSets sets,
      Input input,
      Class<? extends Record> view,
      JsonNode body,
      BiFunction<Input, KeptSet, DeadlineSetChange> change) {
    List<Input> all = input.objects("sets", MOST, view);
    requireSome(input, all);
    Map<Long, KeptSet> known = new HashMap<>();
    sets.load(all.stream().flatMap(one -> one.number("set").stream().boxed()).toList())
        .forEach(set -> known.put(set.id(), set));
    Map<Long, DeadlineSets.Moving> found = new LinkedHashMap<>();
    for (Input one : all) {
      String match = one.required("ifMatch", 100);
      set(one, known)
          .ifPresent(
              it ->
                  add(
                      one,
                      found,
                      new DeadlineSets.Moving(
                          it.id(), new IfMatch(match), change.apply(one, it), body)));
    }
    String reason = input.text("reason", 300);
    input.check();
    return new Movings(List.copyOf(found.values()), reason);
  }

  private static void add(
      Input one, Map<Long, DeadlineSets.Moving> found, DeadlineSets.Moving move) {
    if (found.put(move.set(), move) != null) {
      one.fault("set", say("common.is-listed-twice"));
    }
  }

  private static Optional<KeptSet> set(Input one, Map<Long, KeptSet> known) {
    OptionalLong id = one.number("set");
    Optional<KeptSet> found =
        id.stream().boxed().flatMap(it -> Optional.ofNullable(known.get(it)).stream()).findFirst();
    if (found.isEmpty() && !one.namesFault("set")) {
      one.fault("set", say("deadlines.is-not-a-set"));
    }
    return found;
  }

  /** What is said of a set, new or not. */
  private static DeadlineSetChange change(List<Chains.KeptMethod> methods, Input one, ZoneId zone) {
    Map<Name, Optional<Boolean>> answers = new HashMap<>();
    for (Input answer : one.objects("answers", MOST_STEPS, AnswerSchema.class)) {
      name(answer.required("question", Name.LONGEST))
          .ifPresent(question -> answers.put(question, answer.flag("yes")));
    }
    Map<Name, DeadlineSetChange.OfStep> steps = new HashMap<>();
    for (Input step : one.objects("steps", MOST_STEPS, StepSchema.class)) {
      DeadlineSetChange.OfStep of =
          new DeadlineSetChange.OfStep(
              step.flag("leftOut"), date(step, "date", zone), step.flag("keep").orElse(false));
      name(step.required("step", Name.LONGEST)).ifPresent(name -> steps.put(name, of));
    }
    return new DeadlineSetChange(
        date(one, "keyDate", zone),
        one.has("method") ? Optional.of(method(methods, one)) : Optional.empty(),
        answers,
        one.flag("newest").orElse(false),
        steps,
        false);
  }

  /** A date that was sent; within: none. */
  private static Optional<Optional<Due>> date(Input one, String field, ZoneId zone) {
    return one.has(field)
        ? Optional.of(
            one.object(field, RecordSchemas.DueSchema.class)
                .flatMap(due -> DueInput.read(due, zone)))
        : Optional.empty();
  }

  private static OptionalLong method(List<Chains.KeptMethod> methods, Input one) {
    Optional<Name> name = name(one.text("method", Name.LONGEST));
    if (name.isEmpty()) {
      return OptionalLong.empty();
    }
    Optional<Chains.KeptMethod> found =
        methods.stream().filter(method -> method.method().name().equals(name.get())).findFirst();
    if (found.isEmpty()) {
      one.fault("method", say("deadlines.is-not-a-method"));
    }
    return found.map(Chains.KeptMethod::number).orElse(OptionalLong.empty());
  }

  static Optional<Name> name(String text) {
    return text.isBlank() ? Optional.empty() : Optional.of(Name.of(text));
  }
}
