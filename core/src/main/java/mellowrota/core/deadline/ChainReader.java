package mellowrota.core.deadline;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.deadline.Cursor.Misread;
import mellowrota.core.deadline.Fault.Code;

/**
 * Reads the text of a chain in two passes: each line to its first fault; then, if all could be
 * read, what their names mean.
 */
public final class ChainReader {

  private static final int MOST_CHARACTERS = 65_536;
  private static final int MOST_LINES = 500;
  private static final int LONGEST_LINE = 400;
  private static final int MOST_STEPS = 200;

  private final Known house;
  private final List<Fault> faults = new ArrayList<>();
  private final List<Line.Header> headers = new ArrayList<>();
  private final List<Line.OfStep> steps = new ArrayList<>();

  private ChainReader(Known house) {
    this.house = house;
  }

  /**
   * A text as it was read.
   *
   * @param chain empty: there are faults
   * @param faults by line and column
   */
  public record Reading(Optional<Chain> chain, List<Fault> faults) {
    public Reading {
      faults = List.copyOf(faults);
    }
  }

  /** Reads a text; never throws for what stands in it. */
  public static Reading read(String text, Known house) {
    ChainReader reader = new ChainReader(house);
    reader.lines(text);
    Meaning meaning = new Meaning(house, reader.headers, reader.steps, reader.faults);
    if (reader.faults.isEmpty()) {
      meaning.look();
    }
    reader.faults.sort(Fault.ORDER);
    return new Reading(
        reader.faults.isEmpty() ? Optional.of(meaning.chain()) : Optional.empty(), reader.faults);
  }

  // ---- Line by line ----------------------------------------------------------------------------

  private void lines(String text) {
    String plain = text.startsWith("\ufeff") ? text.substring(1) : text;
    if (plain.codePointCount(0, plain.length()) > MOST_CHARACTERS) {
      add(
          Code.TEXT_LONG,
          1,
          1,
          "the text is too long",
          "at most " + MOST_CHARACTERS + " characters",
          "make two chains of it");
      return;
    }
    String[] all = plain.split("\r\n|\n|\r", -1);
    for (int i = 0; i < all.length; i++) {
      if (i == MOST_LINES && String.join("", List.of(all).subList(i, all.length)).isEmpty()) {
        return;
      }
      if (i == MOST_LINES) {
        add(
            Code.LINES_MANY,
            i + 1,
            1,
            "line " + (i + 1) + " is too many",
            "at most " + MOST_LINES + " lines",
            "make two chains of it");
        return;
      }
      if (!line(i + 1, all[i])) {
        return;
      }
    }
  }

  /** Whether reading goes on. */
  private boolean line(int number, String text) {
    Optional<Fault> unreadable = unreadable(number, text);
    Cursor cursor = new Cursor(number, text);
    try {
      Optional<Line> line = LineReader.read(cursor, house.roles());
      unreadable.ifPresent(faults::add);
      line.ifPresent(this::add);
    } catch (Misread misread) {
      Fault fault = misread.fault;
      if (fault.code() == Code.LANGUAGE) {
        faults.clear();
        faults.add(fault);
        return false;
      }
      faults.add(unreadable.filter(one -> one.column() < fault.column()).orElse(fault));
    }
    return true;
  }

  private void add(Line line) {
    if (line instanceof Line.OfStep step) {
      steps.add(step);
      if (steps.size() == MOST_STEPS + 1) {
        add(
            Code.STEPS_MANY,
            step.number(),
            step.column(),
            "this is step " + steps.size(),
            "at most " + MOST_STEPS + " steps",
            "make two chains of it");
      }
    } else {
      add((Line.Header) line);
    }
  }

  private void add(Line.Header one) {
    Optional<Line.Header> before = Line.Header.of(one.sort(), headers);
    boolean language = one.sort() == Line.Sort.LANGUAGE;
    if (before.isPresent()) {
      add(
          Code.HEADER_TWICE,
          one.number(),
          one.column(),
          "a second " + one.sort().word + " line",
          "one " + one.sort().word + " line",
          "take this one or line " + before.get().number() + " out");
    } else if (!steps.isEmpty() || language && !headers.isEmpty()) {
      add(
          Code.HEADER_LATE,
          one.number(),
          one.column(),
          "the " + one.sort().word + " line comes too late",
          language ? "it before all else" : "it before the steps",
          "move it up");
    }
    headers.add(one);
  }

  /** A line that is too long, or has characters that nobody sees. */
  private static Optional<Fault> unreadable(int line, String text) {
    int[] chars = text.codePoints().toArray();
    for (int i = 0; i < chars.length; i++) {
      if (i == LONGEST_LINE) {
        return Optional.of(
            new Fault(
                Code.LINE_LONG,
                line,
                i + 1,
                "the line is too long",
                "at most " + LONGEST_LINE + " characters",
                "make it shorter",
                Optional.empty()));
      }
      if (isUnseen(chars[i])) {
        return Optional.of(
            new Fault(
                Code.CHARACTER,
                line,
                i + 1,
                String.format("the character U+%04X cannot stand in a chain", chars[i]),
                "a letter, a digit, a mark or a space",
                "take it out",
                Optional.of(new Fault.Edit(i + 1, 1, ""))));
      }
    }
    return Optional.empty();
  }

  private static boolean isUnseen(int c) {
    int type = Character.getType(c);
    return type == Character.CONTROL && c != '\t'
        || type == Character.LINE_SEPARATOR
        || type == Character.PARAGRAPH_SEPARATOR
        || type == Character.SURROGATE;
  }

  private void add(Code code, int line, int column, String what, String expected, String mend) {
    faults.add(Fault.of(code, line, column, what, expected, mend));
  }
}
