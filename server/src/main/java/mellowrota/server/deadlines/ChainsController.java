package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.ChainReader;
import mellowrota.core.deadline.Fault;
import mellowrota.core.deadline.Given;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.deadline.Reckoner;
import mellowrota.core.deadline.Spelling;
import mellowrota.core.deadline.Unit;
import mellowrota.core.people.Person;
import mellowrota.core.work.Due;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.files.Attachment;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.DueInput;
import mellowrota.server.records.RecordSchemas;
import mellowrota.server.records.RecordView;
import mellowrota.server.records.RecordViews;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Chains of deadlines and methods of notice, over HTTP; they are the coordinators' alone. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class ChainsController {

  /** More than the reader takes, so that it says itself what is too long. */
  private static final int LONGEST_TEXT = 200_000;

  private static final int MOST = 200;

  private final Chains chains;
  private final Worlds worlds;
  private final AsSeen asSeen;
  private final Acts acts;

  @Schema(name = "Chain")
  record ChainView(
      long id,
      String name,
      @Schema(description = "Of its text, from 1") int version,
      @Schema(description = "As it was typed") String text,
      @With String tag)
      implements AsSeen.Tagged<ChainView> {}

  @Schema(name = "ChainText")
  record TextSchema(String text) {}

  @Schema(name = "ChainMade")
  record MadeView(long id) {}

  @Schema(name = "ChainAnswer")
  record AnswerSchema(String question, boolean yes) {}

  @Schema(name = "ChainTried")
  record TriedSchema(
      String text,
      @Schema(description = "The chain that it would be the next version of") @Nullable Long chain,
      RecordSchemas.@Nullable DueSchema keyDate,
      @Schema(description = "Whose working days and time zone count; absent: the organisation’s")
          @Nullable Long place,
      @Schema(description = "The method of notice that is chosen") @Nullable String method,
      @Nullable List<AnswerSchema> answers) {}

  @Schema(name = "ChainEdit")
  record EditView(
      @Schema(description = "Of the first character that is replaced, from 1") int column,
      @Schema(description = "How many are replaced") int length,
      String text) {
    static EditView of(Fault.Edit edit) {
      return new EditView(edit.column(), edit.length(), edit.text());
    }
  }

  @Schema(name = "ChainFault")
  record FaultView(
      @Schema(description = "From 1") int line,
      @Schema(description = "Of a code point, from 1") int column,
      String code,
      @Schema(description = "What is wrong, what is expected, how it is mended") String message,
      @Schema(description = "What mends it on that line, where that is known")
          @Nullable EditView edit) {
    static FaultView of(Fault fault) {
      return new FaultView(
          fault.line(),
          fault.column(),
          fault.code().toString(),
          fault.what() + "; expected " + fault.expected() + "; " + fault.mend(),
          fault.edit().map(EditView::of).orElse(null));
    }
  }

  @Schema(name = "ChainDate")
  record DateView(
      String step,
      Reckoned.Standing standing,
      RecordView.@Nullable DueView date,
      @Schema(description = "How it was reckoned, in words") @Nullable String sum,
      @Schema(description = "Why there is no date, in words") @Nullable String why) {}

  @Schema(name = "ChainTrial")
  record TrialView(
      @Schema(description = "By line and column; none: the text can be saved")
          List<FaultView> faults,
      @Nullable String name,
      @Nullable String keyDate,
      List<String> questions,
      @Schema(description = "Some of its steps go by the chosen method") boolean asksMethod,
      @Schema(description = "The same text in its plain spelling") @Nullable String plain,
      @Schema(description = "In the order of the text") List<DateView> dates,
      @Schema(description = "Likewise, in parts") List<StepForms.StepView> steps) {}

  @Schema(name = "NoticeMethod")
  record MethodView(
      @Schema(description = "Absent: the one of that name, or a new one") @Nullable Long id,
      String name,
      @Schema(description = "So many it adds, earlier before a date and later after one")
          int number,
      @Schema(description = "Not minutes") Unit unit) {}

  @Schema(name = "NoticeMethods")
  record MethodsView(List<MethodView> methods, @With String tag)
      implements AsSeen.Tagged<MethodsView> {}

  @Schema(name = "NoticeMethodsChange")
  record MethodsSchema(List<MethodView> methods) {}

  private Person coordinator(World world, Asker asker) {
    Person me = world.person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("deadlines.only-coordinators"));
    }
    return me;
  }

  @GetMapping("/chains")
  @Operation(summary = "List the chains of deadlines with their texts")
  @Transactional(readOnly = true)
  List<ChainView> chains(Asker asker) {
    coordinator(worlds.now(), asker);
    return chains.all().stream()
        .map(
            one ->
                AsSeen.tagged(new ChainView(one.id(), one.name(), one.version(), one.text(), "")))
        .toList();
  }

  @PostMapping("/chains")
  @Operation(summary = "Add a chain; a text with faults is refused, each with its place")
  ResponseEntity<MadeView> add(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = TextSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = coordinator(world, asker);
    String text = text(Input.of(body, TextSchema.class));
    long made =
        acts.make(
            me.id(), key, "chain.add", body.toString(), () -> chains.add(world, me.id(), text));
    return ResponseEntity.status(HttpStatus.CREATED).body(new MadeView(made));
  }

  @PutMapping("/chains/{id}")
  @Operation(summary = "Keep a text as the next version of a chain")
  ResponseEntity<Void> revise(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = TextSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = coordinator(world, asker);
    String text = text(Input.of(body, TextSchema.class));
    asSeen.change(
        match,
        () -> AsSeen.only(chains(asker), one -> one.id() == id),
        body,
        () -> chains.revise(world, me.id(), id, text));
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/chains/{id}")
  @Operation(summary = "Delete a chain with all its versions")
  ResponseEntity<Void> remove(Asker asker, @PathVariable long id) {
    chains.remove(coordinator(worlds.now(), asker).id(), id);
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/chains/read")
  @Operation(summary = "Read a text: its faults, or the dates it comes to; changes nothing")
  @Transactional(readOnly = true)
  TrialView read(
      Asker asker, @RequestBody @Schema(implementation = TriedSchema.class) JsonNode body) {
    World world = worlds.now();
    coordinator(world, asker);
    Input input = Input.of(body, TriedSchema.class);
    String text = input.asTyped("text", LONGEST_TEXT);
    Optional<PlaceId> place = input.number("place").stream().mapToObj(PlaceId::of).findFirst();
    Optional<Place> site = place.flatMap(world.places()::find);
    if (place.isPresent() && site.isEmpty()) {
      input.fault("place", say("common.is-not-a-place"));
    }
    ZoneId zone = site.flatMap(Place::zone).orElse(world.house().zone());
    Optional<Due> keyDate =
        input
            .object("keyDate", RecordSchemas.DueSchema.class)
            .flatMap(due -> DueInput.read(due, zone));
    Optional<Name> method = DeadlineSetInput.name(input.text("method", Name.LONGEST));
    Map<Name, Boolean> answers = answers(input);
    input.check();
    ChainReader.Reading reading = chains.read(world, text, chain(input));
    List<FaultView> faults = reading.faults().stream().map(FaultView::of).toList();
    if (reading.chain().isEmpty()) {
      return new TrialView(faults, null, null, List.of(), false, null, List.of(), List.of());
    }
    Chain chain = reading.chain().get();
    Given given =
        new Given(
            keyDate,
            method,
            answers,
            Map.of(),
            chains.methods().stream().map(Chains.KeptMethod::method).toList(),
            world.places().workDays(place),
            zone);
    int year = keyDate.map(due -> due.day(zone)).map(LocalDate::getYear).orElse(0);
    SumWords words = new SumWords(zone, year);
    return new TrialView(
        faults,
        chain.name().text(),
        chain.keyDate().text(),
        chain.questions().stream().map(Name::text).toList(),
        DeadlineSetViews.asksMethod(chain),
        Spelling.of(chain),
        Reckoner.of(chain, given).stream().map(one -> view(world, words, one)).toList(),
        chain.steps().stream().map(StepForms.StepView::of).toList());
  }

  private static Optional<Long> chain(Input input) {
    return input.number("chain").stream().boxed().findFirst();
  }

  private static DateView view(World world, SumWords words, Reckoned one) {
    return new DateView(
        one.step().name().text(),
        one.standing(),
        one.date().map(due -> RecordViews.due(due, world.house().zone())).orElse(null),
        one.date().flatMap(due -> one.sum()).map(words::said).orElse(null),
        one.why().map(SumWords::said).orElse(null));
  }

  private static Map<Name, Boolean> answers(Input input) {
    Map<Name, Boolean> found = new HashMap<>();
    for (Input one : input.objects("answers", MOST, AnswerSchema.class)) {
      DeadlineSetInput.name(one.required("question", Name.LONGEST))
          .ifPresent(question -> found.put(question, one.flag("yes").orElse(false)));
    }
    return found;
  }

  private static String text(Input input) {
    String text = input.asTyped("text", LONGEST_TEXT);
    input.check();
    return text;
  }

  @GetMapping("/notice-methods")
  @Operation(summary = "Methods of notice, with what each adds to a step")
  @Transactional(readOnly = true)
  MethodsView methods(Asker asker) {
    coordinator(worlds.now(), asker);
    return AsSeen.tagged(
        new MethodsView(chains.methods().stream().map(ChainsController::view).toList(), ""));
  }

  @PutMapping("/notice-methods")
  @Operation(summary = "Replace the methods of notice")
  ResponseEntity<Void> setMethods(
      Asker asker,
      IfMatch match,
      @RequestBody @Schema(implementation = MethodsSchema.class) JsonNode body) {
    Person me = coordinator(worlds.now(), asker);
    Input input = Input.of(body, MethodsSchema.class);
    if (!input.has("methods")) {
      input.fault("methods", say("common.is-missing"));
    }
    List<Chains.KeptMethod> methods = wanted(input);
    input.check();
    asSeen.change(match, () -> methods(asker), body, () -> chains.setMethods(me.id(), methods));
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/chains/{id}.txt")
  @Operation(summary = "A chain as a text file in its plain spelling")
  @ApiResponse(content = @Content(mediaType = "text/plain", schema = @Schema(type = "string")))
  @Transactional(readOnly = true)
  ResponseEntity<String> asText(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    coordinator(world, asker);
    Chain chain = chains.latest(world, id);
    return Attachment.of(chain.name() + ".txt", Attachment.TEXT, Spelling.of(chain));
  }

  @PostMapping("/chains/line")
  @Operation(summary = "Spell a step as its line; changes nothing")
  StepForms.LineView line(
      Asker asker, @RequestBody @Schema(implementation = StepForms.StepView.class) JsonNode body) {
    coordinator(worlds.now(), asker);
    return new StepForms.LineView(
        Spelling.of(StepForms.read(Input.of(body, StepForms.StepView.class))));
  }

  private static MethodView view(Chains.KeptMethod one) {
    Method method = one.method();
    return new MethodView(
        one.number().orElseThrow(), method.name().text(), method.number(), method.unit());
  }

  private static List<Chains.KeptMethod> wanted(Input input) {
    List<Chains.KeptMethod> found = new ArrayList<>();
    Set<Name> seen = new HashSet<>();
    for (Input one : input.objects("methods", MOST, MethodView.class)) {
      Optional<Name> name = DeadlineSetInput.name(one.required("name", Name.LONGEST));
      OptionalLong number = one.number("number");
      Optional<Unit> unit = one.requiredChoice("unit", Unit.class);
      if (unit.filter(Unit.MINUTES::equals).isPresent()) {
        one.fault("unit", say("deadlines.is-not-minutes"));
      } else if (number.isEmpty() || number.getAsLong() > Chain.LARGEST) {
        if (!one.namesFault("number")) {
          one.fault("number", say("deadlines.is-a-number-from", Chain.LARGEST));
        }
      } else if (name.isPresent() && !seen.add(name.get())) {
        one.fault("name", say("common.is-listed-twice"));
      } else if (name.isPresent() && unit.isPresent()) {
        found.add(
            new Chains.KeptMethod(
                one.number("id"), new Method(name.get(), (int) number.getAsLong(), unit.get())));
      }
    }
    return found;
  }
}
