package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Step;
import mellowrota.core.deadline.Unit;
import mellowrota.server.platform.Input;
import org.jspecify.annotations.Nullable;

/** A step of a chain in parts, as a form has them; its line is spelled by the core alone. */
final class StepForms {

  private static final int MOST_PARTS = 20;

  private StepForms() {}

  @Schema(name = "ChainStepFor")
  record ForView(
      @Schema(description = "Whoever holds the role of that name; else a person or a team")
          boolean holding,
      String name,
      @Schema(description = "In which role") @Nullable String as) {}

  @Schema(name = "ChainStepReminder")
  record RemindView(
      int number,
      @Schema(description = "Minutes, hours or working days") Unit unit,
      @Nullable String at) {}

  @Schema(name = "ChainStepCondition")
  record ConditionView(
      @Schema(description = "The answer with which the step applies") boolean wanted,
      String question) {}

  @Schema(name = "ChainStep")
  record StepView(
      String name,
      @Schema(description = "Absent: on the day itself") @Nullable Integer number,
      @Nullable Unit unit,
      Step.@Nullable Side side,
      @Schema(description = "The key date or another step") String from,
      @Schema(description = "The method of notice; absent: none, or the chosen one")
          @Nullable String method,
      @Nullable Boolean chosenMethod,
      Step.@Nullable Roll roll,
      @Nullable String at,
      List<ForView> who,
      List<RemindView> reminders,
      List<ConditionView> conditions) {

    static StepView of(Step step) {
      Optional<Step.Offset> offset = step.offset();
      Optional<Name> method = step.by().flatMap(Step.By::method);
      return new StepView(
          step.name().text(),
          offset.map(Step.Offset::number).orElse(null),
          offset.map(Step.Offset::unit).orElse(null),
          offset.map(Step.Offset::side).orElse(null),
          step.from().text(),
          method.map(Name::text).orElse(null),
          step.by().isPresent() && method.isEmpty() ? true : null,
          step.roll().orElse(null),
          step.at().map(LocalTime::toString).orElse(null),
          step.who().stream()
              .map(
                  one ->
                      new ForView(
                          one.holding(), one.name().text(), one.as().map(Name::text).orElse(null)))
              .toList(),
          step.reminders().stream()
              .map(
                  one ->
                      new RemindView(
                          one.number(), one.unit(), one.at().map(LocalTime::toString).orElse(null)))
              .toList(),
          step.conditions().stream()
              .map(one -> new ConditionView(one.wanted(), one.question().text()))
              .toList());
    }
  }

  @Schema(name = "ChainLine")
  record LineView(String line) {}

  /**
   * The step that was sent; whether its names are known is told when the text is read.
   *
   * @throws mellowrota.server.platform.Problem with the faults of the body
   */
  static Step read(Input input) {
    Optional<Name> name = name(input, "name");
    Optional<Name> from = name(input, "from");
    Optional<Step.Offset> offset = Optional.empty();
    if (input.number("number").isPresent()) {
      int number = number(input);
      Optional<Unit> unit = input.requiredChoice("unit", Unit.class);
      Optional<Step.Side> side = input.requiredChoice("side", Step.Side.class);
      if (unit.isPresent() && side.isPresent()) {
        offset = Optional.of(new Step.Offset(number, unit.get(), side.get()));
      }
    }
    Optional<Name> method = DeadlineSetInput.name(input.text("method", Name.LONGEST));
    boolean chosen = input.flag("chosenMethod").orElse(false);
    Optional<Step.By> by =
        method.isPresent() || chosen ? Optional.of(new Step.By(method)) : Optional.empty();
    Optional<Step.Roll> roll = input.choice("roll", Step.Roll.class);
    Optional<LocalTime> at = at(input);
    List<Step.For> who = new ArrayList<>();
    for (Input one : input.objects("who", MOST_PARTS, ForView.class)) {
      name(one, "name")
          .ifPresent(
              it ->
                  who.add(
                      new Step.For(
                          one.flag("holding").orElse(false),
                          it,
                          DeadlineSetInput.name(one.text("as", Name.LONGEST)))));
    }
    List<Step.Remind> reminders = new ArrayList<>();
    for (Input one : input.objects("reminders", MOST_PARTS, RemindView.class)) {
      int number = number(one);
      one.requiredChoice("unit", Unit.class)
          .ifPresent(unit -> reminders.add(new Step.Remind(number, unit, at(one))));
    }
    List<Step.Condition> conditions = new ArrayList<>();
    for (Input one : input.objects("conditions", MOST_PARTS, ConditionView.class)) {
      name(one, "question")
          .ifPresent(it -> conditions.add(new Step.Condition(one.flag("wanted").orElse(true), it)));
    }
    input.check();
    return new Step(
        name.orElseThrow(), offset, from.orElseThrow(), by, roll, at, who, reminders, conditions);
  }

  private static Optional<Name> name(Input input, String field) {
    return DeadlineSetInput.name(input.required(field, Name.LONGEST));
  }

  private static Optional<LocalTime> at(Input input) {
    return input.has("at") ? input.clock("at") : Optional.empty();
  }

  private static int number(Input input) {
    OptionalLong number = input.number("number");
    if (number.isEmpty() || number.getAsLong() < 0 || number.getAsLong() > Chain.LARGEST) {
      input.fault("number", say("deadlines.is-a-number-from", Chain.LARGEST));
      return 0;
    }
    return (int) number.getAsLong();
  }
}
