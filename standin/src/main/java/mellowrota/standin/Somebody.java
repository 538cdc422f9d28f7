package mellowrota.standin;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Edits entries as the owner of the calendar would, in another program. */
public final class Somebody {

  private static final Pattern TIME =
      Pattern.compile("(?m)^(DT(?:START|END);TZID=[^:]+:)(\\d{8}T\\d{6})");
  private static final Pattern TITLE = Pattern.compile("(?m)^SUMMARY:([^\\r\\n]*)");
  private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss");
  private static final String ADDED = " (bring waders)";

  private Somebody() {}

  /** What is done to an entry. */
  public enum Deed {
    /** Its title gets a word more. */
    RENAMES,
    /** It is half an hour later. */
    MOVES
  }

  /**
   * Edits one entry that has a time and was not edited yet.
   *
   * @return whether there was one
   */
  public static boolean edits(Collection calendar, Deed deed) {
    for (Map.Entry<String, Collection.Stored> one : calendar.objects().entrySet()) {
      String text = one.getValue().text().replaceAll("\\r?\\n[ \\t]", "");
      Optional<String> edited = deed == Deed.MOVES ? moved(text) : renamed(text);
      if (!text.contains(ADDED) && edited.isPresent()) {
        String etag = one.getValue().etag();
        Collection.Outcome outcome =
            calendar.put(
                one.getKey(),
                edited.get(),
                now -> now.filter(was -> was.etag().equals(etag)).isPresent());
        return outcome == Collection.Outcome.CHANGED;
      }
    }
    return false;
  }

  private static Optional<String> moved(String text) {
    Matcher time = TIME.matcher(text);
    return time.find()
        ? Optional.of(
            time.reset()
                .replaceAll(
                    found ->
                        found.group(1)
                            + STAMP.format(
                                LocalDateTime.parse(found.group(2), STAMP).plusMinutes(30))))
        : Optional.empty();
  }

  private static Optional<String> renamed(String text) {
    Matcher title = TITLE.matcher(text);
    return TIME.matcher(text).find() && title.find()
        ? Optional.of(new StringBuilder(text).insert(title.end(), ADDED).toString())
        : Optional.empty();
  }
}
