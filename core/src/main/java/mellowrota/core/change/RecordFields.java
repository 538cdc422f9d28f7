package mellowrota.core.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Details;
import mellowrota.core.work.WorkRecord;

/**
 * A record as flat fields of text, and back: what history keeps and undo applies. They are those of
 * {@link RecordField}, and for each typed detail its text and whom that is for.
 */
public final class RecordFields {

  private static final String DETAIL = "detail:";
  private static final String FOR = "for:";

  private RecordFields() {}

  public static String detail(DetailKey key) {
    return DETAIL + key.name();
  }

  /** The typed detail whose text, or whose readers, the field of that name is. */
  public static DetailKey key(String field) {
    return new DetailKey(field.substring(field.indexOf(':') + 1));
  }

  /** Whether the field of that name is whom a detail is for. */
  public static boolean isForWhom(String field) {
    return field.startsWith(FOR);
  }

  /** What changed from one state of a record to another, by field name. */
  public static List<FieldChange> between(WorkRecord before, WorkRecord after) {
    return between(flatten(before), flatten(after));
  }

  /** The fields of a record that is new, as changes from nothing. */
  public static List<FieldChange> ofNew(WorkRecord record) {
    return between(new TreeMap<>(), flatten(record));
  }

  private static List<FieldChange> between(
      SortedMap<String, String> before, SortedMap<String, String> after) {
    SortedSet<String> names = new TreeSet<>(before.keySet());
    names.addAll(after.keySet());
    List<FieldChange> changes = new ArrayList<>();
    for (String name : names) {
      String old = before.getOrDefault(name, "");
      String now = after.getOrDefault(name, "");
      if (!old.equals(now)) {
        changes.add(new FieldChange(name, old, now));
      }
    }
    return changes;
  }

  /** All fields that are not empty. */
  public static SortedMap<String, String> flatten(WorkRecord record) {
    SortedMap<String, String> fields = new TreeMap<>();
    for (RecordField field : RecordField.values()) {
      put(fields, field.kept(), field.print(record));
    }
    record
        .details()
        .forEach(
            (key, value) -> {
              put(fields, detail(key), value.text());
              put(
                  fields,
                  FOR + key.name(),
                  value.forWhom().map(set -> Long.toHexString(set.bits())).orElse(""));
            });
    return fields;
  }

  private static void put(Map<String, String> fields, String name, String value) {
    if (!value.isEmpty()) {
      fields.put(name, value);
    }
  }

  /** The record with some of its fields set as a change says. */
  public static WorkRecord apply(WorkRecord record, List<FieldChange> changes) {
    WorkRecord.Builder builder = record.with();
    changes.stream()
        .sorted(Comparator.comparing(change -> place(change.field())))
        .forEach(change -> set(builder, change.field(), change.after()));
    return builder.build();
  }

  private static int place(String field) {
    return RecordField.named(field).map(RecordField::ordinal).orElse(Integer.MAX_VALUE);
  }

  private static void set(WorkRecord.Builder builder, String field, String text) {
    Optional<RecordField> named = RecordField.named(field);
    if (named.isPresent()) {
      named.get().set(builder, text);
      return;
    }
    DetailKey key = key(field);
    DetailValue now = builder.build().details().getOrDefault(key, DetailValue.NONE);
    builder.detail(
        key,
        isForWhom(field)
            ? new DetailValue(now.text(), forWhom(text))
            : new DetailValue(text, now.forWhom()));
  }

  private static Optional<ForSet> forWhom(String text) {
    return text.isEmpty()
        ? Optional.empty()
        : Optional.of(new ForSet(Long.parseUnsignedLong(text, 16)));
  }

  /** Whom a field's values are for on this record. */
  public static ForSet forWhom(Details details, WorkRecord record, String field) {
    return RecordField.named(field)
        .map(known -> known.forWhom(details, record))
        .orElseGet(() -> details.forWhom(record, key(field)));
  }
}
