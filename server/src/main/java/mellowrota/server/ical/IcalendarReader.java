package mellowrota.server.ical;

import static mellowrota.server.platform.Words.say;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import net.fortuna.ical4j.data.CalendarParserImpl;
import net.fortuna.ical4j.data.ContentHandler;
import net.fortuna.ical4j.data.ParserException;

/**
 * Reads iCalendar text (RFC 5545) component by component, so that one that is broken does not take
 * the others with it. Values stay as they are written.
 */
public final class IcalendarReader {

  private static final String BEGIN = "BEGIN:";
  private static final String END = "END:";

  /** A line that goes on in the next (RFC 5545 §3.1). */
  private static final Pattern FOLD = Pattern.compile("\r\n[ \t]");

  private IcalendarReader() {}

  /** One property; its parameters' names are in upper case. */
  public record Property(String name, Map<String, String> parameters, String value) {
    /** Its text without the escapes of RFC 5545 §3.3.11. */
    public String text() {
      StringBuilder out = new StringBuilder();
      for (int i = 0; i < value.length(); i++) {
        char c = value.charAt(i);
        if (c == '\\' && i + 1 < value.length()) {
          char next = value.charAt(++i);
          out.append(next == 'n' || next == 'N' ? '\n' : next);
        } else {
          out.append(c);
        }
      }
      return out.toString();
    }
  }

  /**
   * One component inside the calendar.
   *
   * @param number which of the file's components it is, from 1
   * @param line of the file, from 1, on which it begins
   * @param inside the names of components within it
   * @param text as it was written
   */
  public record Component(
      String name,
      int number,
      int line,
      List<Property> properties,
      List<String> inside,
      String text) {

    /** The same without these properties. */
    Component without(Set<String> names) {
      return new Component(
          name,
          number,
          line,
          properties.stream().filter(one -> !names.contains(one.name())).toList(),
          inside,
          text);
    }

    public Optional<Property> find(String property) {
      return all(property).stream().findFirst();
    }

    public List<Property> all(String property) {
      return properties.stream().filter(p -> p.name().equals(property)).toList();
    }
  }

  /**
   * A component that cannot be read.
   *
   * @param line of the file, from 1, on which it begins
   */
  public record Broken(String name, int number, int line, String summary, String why) {}

  /** What the file holds. */
  public record Read(List<Component> components, List<Broken> broken) {}

  /**
   * A component as it is written.
   *
   * @param fault why it is not read, although it is closed; empty: it is
   */
  private record Block(
      String name, int number, int line, String text, boolean closed, Optional<String> fault) {}

  public static Read read(String text) {
    List<Component> components = new ArrayList<>();
    List<Broken> broken = new ArrayList<>();
    for (Block block : blocks(text)) {
      if (block.fault().isPresent()) {
        broken.add(broken(block, block.fault().get()));
        continue;
      }
      if (!block.closed()) {
        broken.add(broken(block, say("ical.no-end", block.name())));
        continue;
      }
      try {
        components.add(component(block));
      } catch (ParserException fault) {
        // It was read with one line before it.
        int line = block.line() + Math.max(fault.getLineNo() - 2, 0);
        broken.add(broken(block, say("ical.no-line-at", line)));
      } catch (IOException | RuntimeException fault) {
        broken.add(broken(block, say("ical.no-line")));
      }
    }
    return new Read(components, broken);
  }

  private static Broken broken(Block block, String why) {
    String summary =
        block
            .text()
            .lines()
            .filter(line -> line.toUpperCase(Locale.ROOT).startsWith("SUMMARY"))
            .map(line -> line.substring(line.indexOf(':') + 1))
            .findFirst()
            .orElse("");
    return new Broken(block.name(), block.number(), block.line(), summary, why);
  }

  /**
   * The components that stand directly in a calendar. All is counted before a library reads it; a
   * component that holds too much is left out with the line that is too much.
   */
  private static List<Block> blocks(String text) {
    List<Block> found = new ArrayList<>();
    StringBuilder inside = new StringBuilder();
    String name = "";
    int begun = 0;
    int line = 0;
    Counts counts = new Counts();
    for (String one : (Iterable<String>) text.lines()::iterator) {
      line++;
      boolean goesOn = one.startsWith(" ") || one.startsWith("\t");
      String upper = goesOn ? "" : one.strip().toUpperCase(Locale.ROOT);
      boolean begins = upper.startsWith(BEGIN);
      boolean outside = name.isEmpty();
      if (outside && (!begins || upper.equals("BEGIN:VCALENDAR"))) {
        continue;
      }
      if (!outside && upper.equals("END:VCALENDAR")) {
        found.add(new Block(name, found.size() + 1, begun, inside.toString(), false, counts.fault));
        name = "";
        continue;
      }
      if (outside) {
        name = upper.substring(BEGIN.length());
        begun = line;
        inside.setLength(0);
        counts.begin(name);
      }
      counts.add(line, one, upper, goesOn);
      if (counts.isOver()) {
        found.add(
            new Block(name, found.size() + 1, begun, "", false, Optional.of(counts.over(line))));
        return found;
      }
      if (counts.fault.isEmpty()) {
        inside.append(one).append("\r\n");
      }
      if (upper.equals(END + name) && counts.depth == 0) {
        found.add(new Block(name, found.size() + 1, begun, inside.toString(), true, counts.fault));
        name = "";
      }
    }
    if (!name.isEmpty()) {
      found.add(new Block(name, found.size() + 1, begun, inside.toString(), false, counts.fault));
    }
    return found;
  }

  /** What is counted of a file, and of the component that is being read. */
  private static final class Counts {
    private static final int MOST_PARTS = 20_000;
    private static final int DEEPEST = 4;
    private static final int MOST_OBSERVANCES = 200;
    private static final int MOST_RULES = 4;
    private static final int MOST_TIMES = 2_000;
    private static final int MOST_TIMES_OF_FILE = 50_000;

    private Optional<String> fault = Optional.empty();
    private int depth;
    private int parts;
    private int timesOfFile;
    private boolean zone;
    private int inIt;
    private int rules;
    private int times;
    private boolean isTimes;

    void begin(String name) {
      fault = Optional.empty();
      zone = name.equals("VTIMEZONE");
      depth = 0;
      inIt = 0;
      rules = 0;
      times = 0;
    }

    boolean isOver() {
      return parts > MOST_PARTS;
    }

    String over(int line) {
      return say("ical.the-file-has-more", MOST_PARTS, line);
    }

    void add(int line, String one, String upper, boolean goesOn) {
      if (upper.startsWith(BEGIN)) {
        parts++;
        inIt++;
        depth++;
        if (depth > DEEPEST) {
          fault(line, say("ical.is-nested-too-deeply"));
        }
        if (zone && inIt > MOST_OBSERVANCES + 1) {
          fault(line, say("ical.is-one-clock-change", MOST_OBSERVANCES));
        }
      } else if (upper.startsWith(END)) {
        depth--;
      }
      isTimes = goesOn ? isTimes : upper.startsWith("EXDATE") || upper.startsWith("RDATE");
      if (isTimes) {
        int more = (goesOn ? 0 : 1) + (int) one.chars().filter(c -> c == ',').count();
        times += more;
        timesOfFile += more;
        if (times > MOST_TIMES || timesOfFile > MOST_TIMES_OF_FILE) {
          fault(line, say("ical.is-one-date-too", MOST_TIMES));
        }
      }
      if (upper.startsWith("RRULE") || upper.startsWith("EXRULE")) {
        rules++;
        if (!zone && rules > MOST_RULES) {
          fault(line, say("ical.is-one-rule-too", MOST_RULES));
        }
        if (zone && !upper.contains("FREQ=YEARLY")) {
          fault(line, say("ical.changes-the-clock-of"));
        }
      }
    }

    private void fault(int line, String why) {
      if (fault.isEmpty()) {
        fault = Optional.of(say("ical.at-line", line, why));
      }
    }
  }

  /** As it stands in a calendar of its own. */
  static String alone(String component) {
    return "BEGIN:VCALENDAR\r\n" + component + "END:VCALENDAR\r\n";
  }

  private static Component component(Block block) throws ParserException, IOException {
    Collecting collecting = new Collecting();
    String unfolded = FOLD.matcher(block.text()).replaceAll("");
    new CalendarParserImpl().parse(new StringReader(alone(unfolded)), collecting);
    return new Component(
        block.name(),
        block.number(),
        block.line(),
        collecting.properties,
        collecting.inside,
        block.text());
  }

  /** Keeps the properties of the component itself, and the names of those within it. */
  private static final class Collecting implements ContentHandler {
    private final List<Property> properties = new ArrayList<>();
    private final List<String> inside = new ArrayList<>();
    private final Deque<String> open = new ArrayDeque<>();
    private Map<String, String> parameters = new HashMap<>();
    private String value = "";

    @Override
    public void startCalendar() {
      open.clear();
    }

    @Override
    public void endCalendar() {
      open.clear();
    }

    @Override
    public void startComponent(String name) {
      if (!open.isEmpty()) {
        inside.add(name.toUpperCase(Locale.ROOT));
      }
      open.push(name);
    }

    @Override
    public void endComponent(String name) {
      open.pop();
    }

    @Override
    public void startProperty(String name) {
      parameters = new HashMap<>();
      value = "";
    }

    @Override
    public void parameter(String name, String itsValue) {
      parameters.put(name.toUpperCase(Locale.ROOT), itsValue);
    }

    @Override
    public void propertyValue(String itsValue) {
      value = itsValue;
    }

    @Override
    public void endProperty(String name) {
      if (open.size() == 1) {
        properties.add(new Property(name.toUpperCase(Locale.ROOT), parameters, value));
      }
    }
  }
}
