package mellowrota.server.calendars;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Reminder;
import mellowrota.core.entry.Uid;
import mellowrota.core.people.ForSet;
import mellowrota.core.sight.Attendee;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.Released;
import mellowrota.core.work.DetailKey;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** What was released as it is kept: JSON whose fields stand in one order, so equal is equal. */
@Component
@RequiredArgsConstructor
public class ReleasedText {

  private final JsonMapper json;

  private record Kept(
      String times,
      String bare,
      List<Reminder> reminders,
      Attendees asked,
      String title,
      String place,
      String text,
      List<Value> values,
      String ref,
      String placeName,
      List<Tag> categories,
      List<Attendee> attendees,
      List<Set> sets) {}

  private record Value(String name, String detail, String format, String words) {}

  private record Tag(String detail, String word) {}

  private record Set(String detail, long bits) {}

  public String write(Released released) {
    Entry entry = released.entry();
    List<Value> values = new ArrayList<>();
    for (Released.Value one : released.values()) {
      values.add(
          new Value(
              one.name(),
              one.detail().name(),
              one.format().orElse(null),
              one.words().orElse(null)));
    }
    return json.writeValueAsString(
        new Kept(
            standing(entry, entry.times()),
            entry.bareTimes().map(bare -> standing(entry, bare)).orElse(null),
            entry.with().reminders(),
            entry.with().attendees(),
            released.title(),
            released.place(),
            released.text(),
            values,
            released.ref(),
            released.placeName().orElse(null),
            released.categories().stream()
                .map(tag -> new Tag(tag.detail().map(DetailKey::name).orElse(null), tag.word()))
                .toList(),
            released.attendees(),
            released.sets().entrySet().stream()
                .map(set -> new Set(set.getKey().name(), set.getValue().bits()))
                .sorted(java.util.Comparator.comparing(Set::detail))
                .toList()));
  }

  /** Of the entry with this key. */
  public Released read(EntryKey key, String uid, String text) {
    Kept kept = json.readValue(text, Kept.class);
    Face standing = Face.parse(kept.times());
    Entry entry =
        new Entry(
            key,
            new Uid(uid),
            standing.times(),
            Optional.ofNullable(kept.bare()).map(bare -> Face.parse(bare).times()),
            Optional.empty(),
            standing.marks(),
            Optional.empty(),
            List.of(),
            new Entry.With(kept.reminders(), kept.asked()),
            true);
    List<Released.Value> values = new ArrayList<>();
    for (Value one : kept.values()) {
      values.add(
          new Released.Value(
              one.name(),
              new DetailKey(one.detail()),
              Optional.ofNullable(one.format()),
              Optional.ofNullable(one.words())));
    }
    Map<DetailKey, ForSet> sets = new HashMap<>();
    kept.sets().forEach(set -> sets.put(new DetailKey(set.detail()), new ForSet(set.bits())));
    return new Released(
        entry,
        kept.title(),
        kept.place(),
        kept.text(),
        values,
        kept.ref(),
        Optional.ofNullable(kept.placeName()),
        kept.categories().stream()
            .map(
                tag ->
                    new Released.Tag(
                        Optional.ofNullable(tag.detail()).map(DetailKey::new), tag.word()))
            .toList(),
        kept.attendees(),
        sets);
  }

  /** Times and marks in the words of a face that says nothing. */
  private static String standing(Entry entry, EntryTimes times) {
    return new Face("", "", "", times, entry.marks(), List.of()).canonical();
  }
}
