package mellowrota.server.records.store;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embedded;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.MapKeyColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.zone.ZoneRulesProvider;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import mellowrota.core.change.FieldTexts;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/**
 * A record with all that it has several of. Its number is taken before, since it is told while the
 * act goes on. Times are kept as local time, zone and chosen offset; instants are derived.
 */
@Entity
@Table(name = "record")
final class RecordEntity {

  static final String TZDB = ZoneRulesProvider.getVersions("UTC").lastEntry().getKey();

  @Id Long id;
  String ref;
  String source;

  String sourceId;

  @Enumerated(EnumType.STRING)
  Kind kind;

  @Enumerated(EnumType.STRING)
  State state;

  @Enumerated(EnumType.STRING)
  State stateBefore;

  boolean started;
  boolean cant;

  @Column(name = "private")
  boolean isPrivate;

  boolean personal;
  boolean free;
  long author;

  Instant createdAt;

  Long place;

  @JdbcTypeCode(SqlTypes.ARRAY)
  Long[] uses;

  Long team;
  @Embedded DueParts due;

  Instant dueAt;

  /** When its first visit begins; null where none has a span. */
  Instant beginsAt;

  /** The due time, else when it begins. */
  Instant sortsAt;

  /** When it was last changed for the office, in whole milliseconds. */
  Instant changedAt;

  String tzdb;

  Integer leastHeadCount;

  String wants;

  /** In minutes. */
  Integer estimate;

  /** In minutes. */
  @JdbcTypeCode(SqlTypes.ARRAY)
  Integer[] reminders;

  @Version Long version;

  @ElementCollection
  @CollectionTable(name = "named_date", joinColumns = @JoinColumn(name = "record"))
  @OrderColumn(name = "position")
  List<DatePart> dates = new ArrayList<>();

  @ElementCollection
  @CollectionTable(name = "visit", joinColumns = @JoinColumn(name = "record"))
  @MapKeyColumn(name = "no")
  Map<Integer, VisitPart> visits = new HashMap<>();

  @ElementCollection
  @CollectionTable(name = "assignment", joinColumns = @JoinColumn(name = "record"))
  @OrderColumn(name = "position")
  List<AssignmentPart> assignments = new ArrayList<>();

  @ElementCollection
  @CollectionTable(name = "detail", joinColumns = @JoinColumn(name = "record"))
  @MapKeyColumn(name = "key")
  Map<String, DetailPart> details = new HashMap<>();

  @ElementCollection
  @CollectionTable(name = "tag", joinColumns = @JoinColumn(name = "record"))
  @Column(name = "tag")
  Set<String> tags = new HashSet<>();

  @ElementCollection
  @CollectionTable(name = "ruling", joinColumns = @JoinColumn(name = "record"))
  @OrderColumn(name = "position")
  List<RulingPart> rulings = new ArrayList<>();

  protected RecordEntity() {}

  /** A new one, with what never changes. */
  RecordEntity(WorkRecord record, Optional<String> source, Optional<String> sourceId) {
    id = record.id().value();
    ref = record.ref();
    this.source = source.orElse(null);
    this.sourceId = sourceId.orElse(null);
    kind = record.kind();
    personal = record.personal();
    author = record.author().value();
    createdAt = record.createdAt();
  }

  /** Takes on what a record says by now; of what it has several of, only what changed. */
  void become(WorkRecord record) {
    state = record.state();
    stateBefore = record.stateBefore();
    started = record.started();
    cant = record.cant();
    isPrivate = record.isPrivate();
    free = record.free();
    place = record.place().map(PlaceId::value).orElse(null);
    uses = record.uses().stream().map(PlaceId::value).toArray(Long[]::new);
    team = record.team().map(TeamId::value).orElse(null);
    due = record.due().map(DueParts::new).orElse(null);
    dueAt = record.due().map(RecordEntity::at).orElse(null);
    beginsAt = begins(record);
    sortsAt = dueAt == null ? beginsAt : dueAt;
    tzdb = TZDB;
    leastHeadCount =
        record.leastHeadCount().isPresent() ? record.leastHeadCount().getAsInt() : null;
    wants = RecordField.WANTS.print(record);
    estimate = record.estimate().map(one -> (int) one.toMinutes()).orElse(null);
    reminders =
        record.reminders().stream().map(one -> (int) one.toMinutes()).toArray(Integer[]::new);
    becomeParts(record);
  }

  private void becomeParts(WorkRecord record) {
    become(dates, record.dates(), DatePart::date, DatePart::new);
    become(assignments, record.assignments(), AssignmentPart::assignment, AssignmentPart::new);
    become(rulings, record.rulings(), RulingPart::ruling, RulingPart::new);
    Map<Integer, Visit> byNo =
        record.visits().stream().collect(Collectors.toMap(Visit::no, Function.identity()));
    become(visits, byNo, (no, part) -> part.visit(), VisitPart::new);
    Map<String, DetailValue> byKey = new HashMap<>();
    record.details().forEach((key, value) -> byKey.put(key.name(), value));
    become(details, byKey, (key, part) -> part.detail(), DetailPart::new);
    if (!tags.equals(record.tags())) {
      tags.retainAll(record.tags());
      tags.addAll(record.tags());
    }
  }

  private static <P, V> void become(
      List<P> parts, List<V> values, Function<P, V> read, Function<V, P> write) {
    for (int i = 0; i < values.size(); i++) {
      if (i == parts.size()) {
        parts.add(write.apply(values.get(i)));
      } else if (!read.apply(parts.get(i)).equals(values.get(i))) {
        parts.set(i, write.apply(values.get(i)));
      }
    }
    while (parts.size() > values.size()) {
      parts.remove(parts.size() - 1);
    }
  }

  private static <K, P, V> void become(
      Map<K, P> parts, Map<K, V> values, BiFunction<K, P, V> read, Function<V, P> write) {
    parts.keySet().retainAll(values.keySet());
    values.forEach(
        (key, value) -> {
          P part = parts.get(key);
          if (part == null || !read.apply(key, part).equals(value)) {
            parts.put(key, write.apply(value));
          }
        });
  }

  WorkRecord record() {
    Map<DetailKey, DetailValue> values = new HashMap<>();
    details.forEach((key, part) -> values.put(new DetailKey(key), part.detail()));
    return new WorkRecord(
        RecordId.of(id),
        ref,
        kind,
        state,
        stateBefore,
        started,
        cant,
        isPrivate,
        personal,
        free,
        PersonId.of(author),
        createdAt,
        Optional.ofNullable(place).map(PlaceId::of),
        Arrays.stream(uses).map(PlaceId::of).toList(),
        Optional.ofNullable(team).map(TeamId::of),
        Optional.ofNullable(due).map(DueParts::due),
        dates.stream().map(DatePart::date).toList(),
        visits.values().stream()
            .map(VisitPart::visit)
            .sorted(Comparator.comparingInt(Visit::no))
            .toList(),
        assignments.stream()
            .map(AssignmentPart::assignment)
            .sorted(Comparator.comparingInt(Assignment::visit))
            .toList(),
        values,
        Set.copyOf(tags),
        rulings.stream().map(RulingPart::ruling).toList(),
        leastHeadCount == null ? OptionalInt.empty() : OptionalInt.of(leastHeadCount),
        FieldTexts.wants(wants),
        Optional.ofNullable(estimate).map(Duration::ofMinutes),
        Arrays.stream(reminders).map(Duration::ofMinutes).toList());
  }

  /** When it is due; a day is over at its end, UTC. */
  private static Instant at(Due due) {
    return due instanceof Due.At timed
        ? timed.time().toInstant()
        : ((Due.On) due).day().plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant();
  }

  /** When the first visit begins; null where none has a span. Days begin at midnight, UTC. */
  private static Instant begins(WorkRecord record) {
    return record.visits().stream()
        .flatMap(visit -> visit.when().stream())
        .map(
            when ->
                when instanceof When.Timed timed
                    ? timed.start().toInstant()
                    : ((When.AllDay) when).days().first().atStartOfDay(ZoneOffset.UTC).toInstant())
        .min(Comparator.naturalOrder())
        .orElse(null);
  }
}
