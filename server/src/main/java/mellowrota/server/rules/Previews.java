package mellowrota.server.rules;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Preview;
import mellowrota.core.project.Release;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.store.ReleaseStore;
import mellowrota.server.records.store.RecordSets;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** Goes through the records that stand on calendars, some at a time, from the lowest number up. */
@Component
@RequiredArgsConstructor
class Previews {

  private final RecordStore store;
  private final ReleaseStore releases;
  private final RecordSets sets;

  @Value("${mellow.records-in-one-act}")
  private final int inOneAct;

  /** Where there are more, a change goes through them in the background. */
  int inOneAct() {
    return inOneAct;
  }

  /** How many there are. */
  long count() {
    return sets.standing();
  }

  /** The numbers of the next ones after a number. */
  List<RecordId> after(long number, int most) {
    return sets.standingAfter(number, most);
  }

  /** Those that changed or were made since. */
  List<RecordId> changedSince(Instant since) {
    return sets.changedSince(since);
  }

  /**
   * What a change does to some records.
   *
   * @param touched which it touches at all, as far as there are not more than {@code most}
   */
  record Part(Preview.Sum sum, List<RecordId> touched, int most) {

    static Part of(int most) {
      return new Part(new Preview.Sum(), new ArrayList<>(), most);
    }
  }

  /**
   * Adds what becomes of these records.
   *
   * @param from work that ended before this day counts only where something is hidden
   * @param asker who gets to see the sum
   */
  void add(
      Part part,
      World before,
      World after,
      Optional<LocalDate> from,
      List<RecordId> ids,
      PersonId asker) {
    Preview exact = new Preview(before.projector(), after.projector());
    Preview asked = new Preview(before.projector(), after.projector(), asker);
    Set<RecordId> past = past(from, before, ids);
    Release.Known known = releases(before, after, ids);
    for (WorkRecord record : store.load(ids, false)) {
      boolean isPast = past.contains(record.id());
      Preview.Told told = exact.of(record, known);
      Preview.Told seen = asked.covers(record) ? asked.of(record, known) : told;
      boolean stays = isPast && !hides(seen);
      part.sum().add(stays ? List.of() : seen.rows(), stays ? 0 : seen.waits());
      if (isTouched(told, isPast) && part.touched().size() < part.most()) {
        part.touched().add(record.id());
      }
    }
  }

  /** What becomes of these records in another world. */
  List<Preview.Told> told(World before, World after, List<RecordId> ids, PersonId asker) {
    Preview preview = new Preview(before.projector(), after.projector(), asker);
    Release.Known known = releases(before, after, ids);
    return store.load(ids, false).stream().map(record -> preview.of(record, known)).toList();
  }

  /** What becomes of records that change themselves, from what they are now. */
  List<Preview.Told> told(
      World before, World after, Map<RecordId, WorkRecord> changed, PersonId asker) {
    Preview preview = new Preview(before.projector(), after.projector(), asker);
    List<RecordId> ids = List.copyOf(new TreeSet<>(changed.keySet()));
    Release.Known known = releases(before, after, ids);
    Map<RecordId, WorkRecord> now =
        store.load(ids, false).stream()
            .collect(Collectors.toMap(WorkRecord::id, Function.identity()));
    return ids.stream()
        .map(id -> preview.of(Optional.ofNullable(now.get(id)), changed.get(id), known))
        .toList();
  }

  /** Which of these records a change touches at all. */
  List<RecordId> touched(World before, World after, Optional<LocalDate> from, List<RecordId> ids) {
    Preview preview = new Preview(before.projector(), after.projector());
    Set<RecordId> past = past(from, before, ids);
    Release.Known known = releases(before, after, ids);
    List<RecordId> found = new ArrayList<>();
    for (WorkRecord record : store.load(ids, false)) {
      if (isTouched(preview.of(record, known), past.contains(record.id()))) {
        found.add(record.id());
      }
    }
    return found;
  }

  private static boolean isTouched(Preview.Told told, boolean isPast) {
    return isPast ? hides(told) : !told.isNothing();
  }

  private Release.Known releases(World before, World after, List<RecordId> ids) {
    return before.asksForYes() || after.asksForYes() ? releases.of(ids) : Release.Known.NONE_WAITS;
  }

  private static boolean hides(Preview.Told told) {
    return told.rows().stream()
        .flatMap(row -> row.faces().stream())
        .anyMatch(face -> !face.hidden().isEmpty());
  }

  /** Which of them ended before the day, in the house's zone; what has no time never ends. */
  private Set<RecordId> past(Optional<LocalDate> from, World world, List<RecordId> ids) {
    return from.map(day -> sets.past(ids, day.atStartOfDay(world.house().zone()).toInstant(), day))
        .orElse(Set.of());
  }
}
