package mellowrota.core.sync;

import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.entry.EntryTimes;

/**
 * What a copy says, as far as it is compared: not its alarms, colours, or anything else that is not
 * ours. Texts are compared as people read them, since hosts store line ends, blanks and escapes
 * their own way.
 */
public record Content(String title, String place, String text, EntryTimes times) {

  public Content {
    title = tidy(title, "title").replace('\n', ' ');
    place = tidy(place, "place").replace('\n', ' ');
    text = tidy(text, "text");
    Objects.requireNonNull(times, "times");
  }

  /** Line ends as \n, no blanks at the ends of lines, no empty lines at either end. */
  private static String tidy(String text, String name) {
    Objects.requireNonNull(text, name);
    return text.replace("\r\n", "\n")
        .replace('\r', '\n')
        .replace('\u00a0', ' ')
        .replaceAll("[ \\t]+(?=\\n|$)", "")
        .strip();
  }

  /**
   * The lines that were added after our text, if nothing else in it changed.
   *
   * @param sent what we last wrote
   */
  Optional<String> noteAfter(Content sent) {
    if (text.length() <= sent.text.length() || !text.startsWith(sent.text)) {
      return Optional.empty();
    }
    String rest = text.substring(sent.text.length());
    boolean ownLine = sent.text.isEmpty() || rest.startsWith("\n");
    return ownLine ? Optional.of(rest.strip()) : Optional.empty();
  }

  /** The same without these lines of its text. */
  public Content without(Set<String> lines) {
    String rest =
        text.lines()
            .filter(line -> !lines.contains(line.strip()))
            .collect(Collectors.joining("\n"));
    return new Content(title, place, rest, times);
  }

  /** The same with lines added to its text, unless it says them already. */
  Content noted(String note) {
    if (("\n" + text + "\n").contains("\n" + note + "\n")) {
      return this;
    }
    return new Content(title, place, text.isEmpty() ? note : text + "\n" + note, times);
  }

  /** What it says of one part; of a note nothing, since that is only found by comparing. */
  public Object of(Part part) {
    return switch (part) {
      case TIMES -> times;
      case TITLE -> title;
      case PLACE -> place;
      case TEXT -> text;
      case NOTE -> "";
    };
  }

  /**
   * Whether both say the same of a part; times in other zones are the same if they begin and end
   * together.
   */
  boolean agrees(Content other, Part part) {
    if (part != Part.TIMES) {
      return of(part).equals(other.of(part));
    }
    return times.getClass() == other.times.getClass()
        && times.from().equals(other.times.from())
        && times.until().equals(other.times.until());
  }

  /** Whether both say the same. */
  public boolean agrees(Content other) {
    for (Part part : Part.values()) {
      if (!agrees(other, part)) {
        return false;
      }
    }
    return true;
  }

  /** Whether what stands there is this, but for what was changed there since it was sent. */
  public boolean agreesBut(Content theirs, Content sent) {
    boolean any = false;
    for (Part part : Part.values()) {
      boolean edited = !theirs.agrees(sent, part);
      if (!edited && !theirs.agrees(this, part)) {
        return false;
      }
      any |= theirs.agrees(this, part);
    }
    return any;
  }

  /** The same with another's part. */
  Content with(Part part, Content other) {
    return switch (part) {
      case TIMES -> new Content(title, place, text, other.times);
      case TITLE -> new Content(other.title, place, text, times);
      case PLACE -> new Content(title, other.place, text, times);
      case TEXT -> new Content(title, place, other.text, times);
      case NOTE -> noted(other.text);
    };
  }
}
