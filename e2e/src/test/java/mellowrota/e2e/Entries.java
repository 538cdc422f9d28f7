package mellowrota.e2e;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import tools.jackson.databind.JsonNode;

/** What stands on calendars, read from the database, and how it differs from before. */
final class Entries {

  private Entries() {}

  /** Every live entry and what each of its faces holds, as the database has it. */
  static Map<String, String> of(Database database) {
    Map<String, String> found = new TreeMap<>();
    database
        .query(
            """
            select e.calendar || '|' || e.uid || '|' || coalesce(string_agg(f.rendering || '=' ||
              md5(f.content), ',' order by f.rendering) filter (where f.live), '')
            from entry e left join face f on f.entry = e.id where e.state = 'LIVE' group by e.id
            """)
        .forEach(
            row -> {
              String[] parts = row.split("\\|", -1);
              found.put(parts[0] + " " + parts[1], parts[2]);
            });
    return found;
  }

  /** A preview by calendar: added, changed, taken off. */
  static List<String> counted(JsonNode preview) {
    List<String> found = new ArrayList<>();
    preview
        .get("calendars")
        .forEach(
            one ->
                found.add(
                    "%d +%d ~%d -%d"
                        .formatted(
                            one.get("calendar").asLong(),
                            one.get("added").asLong(),
                            one.get("changed").asLong(),
                            one.get("takenOff").asLong())));
    return found;
  }

  /** The same, counted from what the database held before and after. */
  static List<String> counted(Map<String, String> before, Map<String, String> after) {
    Map<Long, int[]> counts = new TreeMap<>();
    after.forEach(
        (key, faces) -> {
          if (!before.containsKey(key)) {
            at(counts, key)[0]++;
          } else if (!before.get(key).equals(faces)) {
            at(counts, key)[1]++;
          }
        });
    before.keySet().stream()
        .filter(key -> !after.containsKey(key))
        .forEach(key -> at(counts, key)[2]++);
    List<String> found = new ArrayList<>();
    counts.forEach(
        (calendar, n) -> found.add("%d +%d ~%d -%d".formatted(calendar, n[0], n[1], n[2])));
    return found;
  }

  private static int[] at(Map<Long, int[]> counts, String key) {
    return counts.computeIfAbsent(
        Long.valueOf(key.substring(0, key.indexOf(' '))), id -> new int[3]);
  }
}
