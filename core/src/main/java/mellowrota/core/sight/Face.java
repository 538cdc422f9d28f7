package mellowrota.core.sight;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Hash;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.Position;

/**
 * What one audience gets of an entry: the only form in which a record leaves the server for other
 * eyes. It holds values that may be shown and nothing else.
 *
 * @param position of the place, where that is shown
 * @param own the work's own times, where margins are part of {@code times}
 * @param bare whether it is served below level <i>all</i>, where nothing stands in words (LANDING
 *     18)
 */
public record Face(
    String title,
    String place,
    String text,
    EntryTimes times,
    Entry.Marks marks,
    List<String> categories,
    List<Alarm> alarms,
    List<Attendee> attendees,
    Optional<Position> position,
    Optional<EntryTimes.Timed> own,
    boolean bare) {

  private static final char FIELD = '\u001f';
  private static final char ITEM = '\u001e';

  public Face {
    Objects.requireNonNull(title, "title");
    Objects.requireNonNull(place, "place");
    Objects.requireNonNull(text, "text");
    Objects.requireNonNull(times, "times");
    Objects.requireNonNull(marks, "marks");
    categories = List.copyOf(categories);
    alarms = List.copyOf(alarms);
    attendees = List.copyOf(attendees);
    Objects.requireNonNull(position, "position");
    Objects.requireNonNull(own, "own");
  }

  /** One that rings for nobody and invites nobody. */
  public Face(
      String title,
      String place,
      String text,
      EntryTimes times,
      Entry.Marks marks,
      List<String> categories) {
    this(
        title,
        place,
        text,
        times,
        marks,
        categories,
        List.of(),
        List.of(),
        Optional.empty(),
        Optional.empty(),
        false);
  }

  /** Below level <i>all</i>: its times and marks, perhaps where it is, and no words. */
  public static Face bare(String title, String place, EntryTimes times, Entry.Marks marks) {
    return new Face(
        title,
        place,
        "",
        times,
        marks,
        List.of(),
        List.of(),
        List.of(),
        Optional.empty(),
        Optional.empty(),
        true);
  }

  /**
   * The canonical content: fields apart by U+001F. No value holds control characters, which are
   * refused where details are typed. What hardly any entry has stands at the end, or not at all.
   */
  public String canonical() {
    StringBuilder out = new StringBuilder(160);
    out.append(title).append(FIELD).append(place).append(FIELD).append(text).append(FIELD);
    if (times instanceof EntryTimes.Timed timed) {
      out.append("T").append(FIELD);
      moment(out, timed.start());
      moment(out, timed.end());
      out.append(timed.start().getZone().getId());
    } else {
      DaySpan days = ((EntryTimes.AllDay) times).days();
      out.append("D").append(FIELD).append(days.first()).append(FIELD);
      out.append(days.until());
    }
    out.append(FIELD);
    flag(out, marks.tick());
    flag(out, marks.tentative());
    flag(out, marks.busy());
    flag(out, marks.late());
    flag(out, marks.unhanded());
    out.append(bare ? "1" : "");
    out.append(FIELD);
    for (int i = 0; i < categories.size(); i++) {
      out.append(i == 0 ? "" : ITEM).append(categories.get(i));
    }
    if (!alarms.isEmpty() || !attendees.isEmpty() || position.isPresent() || own.isPresent()) {
      rare(out);
    }
    return out.toString();
  }

  private void rare(StringBuilder out) {
    out.append(FIELD);
    for (int i = 0; i < alarms.size(); i++) {
      Alarm alarm = alarms.get(i);
      out.append(i == 0 ? "" : ITEM).append(alarm.fromEnd() ? 'E' : 'S');
      out.append(alarm.before().toSeconds());
    }
    out.append(FIELD);
    for (int i = 0; i < attendees.size(); i++) {
      Attendee one = attendees.get(i);
      out.append(i == 0 ? "" : ITEM).append(one.informed() ? 'I' : 'P');
      out.append(one.id()).append(' ').append(one.name());
    }
    // Faces of before have neither.
    if (position.isPresent() || own.isPresent()) {
      out.append(FIELD);
      position.ifPresent(at -> out.append(at.latitude()).append(' ').append(at.longitude()));
    }
    if (own.isPresent()) {
      out.append(FIELD);
      moment(out, own.get().start());
      moment(out, own.get().end());
      out.append(own.get().start().getZone().getId());
    }
  }

  private static Optional<Position> position(String text) {
    if (text.isEmpty()) {
      return Optional.empty();
    }
    String[] degrees = text.split(" ");
    return Optional.of(
        new Position(Double.parseDouble(degrees[0]), Double.parseDouble(degrees[1])));
  }

  private static List<Alarm> alarms(String text) {
    return items(text).stream()
        .map(
            item ->
                new Alarm(
                    Duration.ofSeconds(Long.parseLong(item.substring(1))), item.charAt(0) == 'E'))
        .toList();
  }

  private static List<Attendee> attendees(String text) {
    return items(text).stream()
        .map(
            item -> {
              int space = item.indexOf(' ');
              return new Attendee(
                  item.substring(1, space), item.substring(space + 1), item.charAt(0) == 'I');
            })
        .toList();
  }

  private static List<String> items(String text) {
    return text.isEmpty() ? List.of() : List.of(text.split(String.valueOf(ITEM)));
  }

  private static void flag(StringBuilder out, boolean value) {
    out.append(value ? '1' : '0');
  }

  /** Local seconds since 1970 and the offset: far cheaper than printing, and as exact. */
  private static void moment(StringBuilder out, ZonedDateTime moment) {
    out.append(moment.toLocalDateTime().toEpochSecond(ZoneOffset.UTC)).append(FIELD);
    out.append(moment.getOffset().getTotalSeconds()).append(FIELD);
  }

  /** The inverse of {@link #canonical}. */
  public static Face parse(String canonical) {
    String[] f = canonical.split(String.valueOf(FIELD), -1);
    EntryTimes times;
    int next;
    if (f[3].equals("T")) {
      times = timed(f, 4);
      next = 9;
    } else {
      times = new EntryTimes.AllDay(DaySpan.of(LocalDate.parse(f[4]), LocalDate.parse(f[5])));
      next = 6;
    }
    String flags = f[next];
    Entry.Marks marks =
        new Entry.Marks(on(flags, 0), on(flags, 1), on(flags, 2), on(flags, 3), on(flags, 4));
    boolean rare = f.length > next + 2;
    return new Face(
        f[0],
        f[1],
        f[2],
        times,
        marks,
        items(f[next + 1]),
        rare ? alarms(f[next + 2]) : List.of(),
        rare ? attendees(f[next + 3]) : List.of(),
        f.length > next + 4 ? position(f[next + 4]) : Optional.empty(),
        f.length > next + 5 ? Optional.of(timed(f, next + 5)) : Optional.empty(),
        flags.length() > 5 && on(flags, 5));
  }

  private static EntryTimes.Timed timed(String[] f, int at) {
    ZoneId zone = ZoneId.of(f[at + 4]);
    return new EntryTimes.Timed(moment(f[at], f[at + 1], zone), moment(f[at + 2], f[at + 3], zone));
  }

  private static boolean on(String flags, int at) {
    return flags.charAt(at) == '1';
  }

  private static ZonedDateTime moment(String seconds, String offset, ZoneId zone) {
    return ZonedDateTime.ofLocal(
        LocalDateTime.ofEpochSecond(Long.parseLong(seconds), 0, ZoneOffset.UTC),
        zone,
        ZoneOffset.ofTotalSeconds(Integer.parseInt(offset)));
  }

  /** Whether the two differ in what RFC 5546 §2.1.4 lets SEQUENCE tell: times or state. */
  public boolean differsInTimesOrState(Face other) {
    return !times.equals(other.times)
        || marks.tick() != other.marks.tick()
        || marks.tentative() != other.marks.tentative();
  }

  /** A short hash (SHA-256, first 16 bytes, hexadecimal) of the canonical content. */
  public static String digest(String canonical) {
    byte[] hash = Hash.SHA_256.of(canonical.getBytes(StandardCharsets.UTF_8));
    return HexFormat.of().formatHex(hash, 0, 16);
  }
}
