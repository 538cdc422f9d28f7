package mellowrota.core.deadline;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** The one plain spelling of a chain, for comparing and for files. */
public final class Spelling {

  static final Name CHOSEN = Name.of("chosen method");

  private static final String NEEDS_QUOTES = ",:;\"";

  private Spelling() {}

  /** The whole text, each line with its end. */
  public static String of(Chain chain) {
    List<String> lines = new ArrayList<>();
    lines.add("language: 1");
    lines.add("chain: " + name(chain.name()));
    lines.add("key date: " + name(chain.keyDate()));
    if (!chain.questions().isEmpty()) {
      lines.add(
          "ask: "
              + chain.questions().stream().map(Spelling::name).collect(Collectors.joining(", ")));
    }
    chain.steps().forEach(step -> lines.add(of(step)));
    return lines.stream().map(line -> line + "\n").collect(Collectors.joining());
  }

  /** One step as its line. */
  public static String of(Step step) {
    StringBuilder line = new StringBuilder(when(step));
    step.by()
        .ifPresent(
            by ->
                line.append(", by ")
                    .append(by.method().map(Spelling::method).orElse(CHOSEN.text())));
    step.roll().ifPresent(roll -> line.append(", ").append(roll(roll)));
    step.at().ifPresent(at -> line.append(", at ").append(time(at)));
    line.append(": ").append(name(step.name()));
    step.who().forEach(who -> line.append("; for ").append(who(who)));
    step.reminders().forEach(one -> line.append("; remind ").append(remind(one)));
    step.conditions()
        .forEach(
            one ->
                line.append(one.wanted() ? "; only if " : "; unless ")
                    .append(name(one.question())));
    return line.toString();
  }

  private static String when(Step step) {
    return step.offset()
            .map(
                one ->
                    one.number()
                        + " "
                        + one.unit().after(one.number())
                        + " "
                        + one.side().name().toLowerCase(Locale.ROOT)
                        + " ")
            .orElse("on ")
        + name(step.from());
  }

  private static String roll(Step.Roll roll) {
    return switch (roll) {
      case BACK -> "back to a working day";
      case FORWARD -> "forward to a working day";
      case ANY_DAY -> "on any day";
    };
  }

  private static String who(Step.For who) {
    return (who.holding() ? "the " : "")
        + inFor(who.name())
        + who.as().map(role -> " as " + inFor(role)).orElse("");
  }

  private static String remind(Step.Remind one) {
    return one.number()
        + " "
        + one.unit().after(one.number())
        + " before"
        + one.at().map(at -> " at " + time(at)).orElse("");
  }

  private static String time(LocalTime at) {
    return String.format(Locale.ROOT, "%02d:%02d", at.getHour(), at.getMinute());
  }

  private static String method(Name name) {
    return name.equals(CHOSEN) ? Cursor.spelled(name.text()) : name(name);
  }

  private static String inFor(Name name) {
    List<String> words = Arrays.asList(name.text().toLowerCase(Locale.ROOT).split(" "));
    return words.get(0).equals("the") || words.contains("as")
        ? Cursor.spelled(name.text())
        : name(name);
  }

  /** In quotes only where it has to be. */
  static String name(Name name) {
    String text = name.text();
    boolean plain =
        text.chars().noneMatch(c -> NEEDS_QUOTES.indexOf(c) >= 0)
            && !Cursor.isCurly(text.codePointAt(0))
            && !Arrays.asList(text.split(" ")).contains("#");
    return plain ? text : Cursor.spelled(text);
  }
}
