package mellowrota.server.cover;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Place;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.cover.store.LimitStore;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Clashes as one person may see them. */
@Component
@RequiredArgsConstructor
class ClashViews {

  private final RecordAccess access;
  private final ClashAcceptance stood;

  @Schema(name = "ClashItem")
  record ItemView(
      Clash.Sort sort,
      @Schema(description = "Of work that the caller may open") @Nullable Long record,
      @Nullable Integer visit,
      @Nullable String ref,
      @Nullable String title,
      Instant start,
      Instant end) {}

  @Schema(name = "ClashLetStand")
  record StoodView(String reason, String by, Instant at) {}

  @Schema(name = "Clash")
  record ClashView(
      @Schema(description = "Stays the same until either side changes") String key,
      Clash.Kind kind,
      @Schema(description = "The limits do not allow it; otherwise it only warns") boolean never,
      @Schema(description = "Other clashes of the same pair") List<Clash.Kind> also,
      @Schema(description = "Absent: a place holds too much") @Nullable Long person,
      @Schema(description = "Of the person, else of the place") @Nullable String name,
      List<ItemView> items,
      Instant start,
      Instant end,
      @Nullable StoodView letStand) {}

  List<ClashView> of(World world, Person asker, CrewTimes.Around around, List<Clash> clashes) {
    Map<Long, RecordAccess.Standing> standings = standings(world, asker, around, clashes);
    Map<String, LimitStore.Stood> all = stood.all();
    return clashes.stream()
        .map(
            one -> {
              String key = ClashAcceptance.key(one);
              return new ClashView(
                  key,
                  one.kind(),
                  one.level() == Clash.Level.NEVER,
                  one.also(),
                  one.person().map(PersonId::value).orElse(null),
                  one.person()
                      .map(id -> world.person(id).name())
                      .or(() -> place(world, one, standings))
                      .orElse(null),
                  one.items().stream().map(item -> item(item, standings)).toList(),
                  one.span().start(),
                  one.span().end(),
                  Optional.ofNullable(all.get(key)).map(was -> view(world, was)).orElse(null));
            })
        .toList();
  }

  /** Where too much stands, as far as the asker may see where any of it is. */
  private static Optional<String> place(
      World world, Clash clash, Map<Long, RecordAccess.Standing> standings) {
    boolean seen =
        clash.items().stream()
            .map(item -> standings.get(record(item)))
            .anyMatch(one -> one != null && one.opens() && one.sees(DetailKey.PLACE));
    return clash.place().filter(place -> seen).flatMap(world.places()::find).map(Place::name);
  }

  private static StoodView view(World world, LimitStore.Stood was) {
    return new StoodView(was.reason(), world.person(was.by()).name(), was.at());
  }

  private Map<Long, RecordAccess.Standing> standings(
      World world, Person asker, CrewTimes.Around around, List<Clash> clashes) {
    Map<Long, WorkRecord> records = new HashMap<>();
    clashes.stream()
        .flatMap(one -> one.items().stream())
        .filter(item -> item.sort() == Clash.Sort.WORK)
        .map(ClashViews::record)
        .distinct()
        .forEach(id -> around.record(id).ifPresent(record -> records.put(id, record)));
    Map<Long, RecordAccess.Standing> found = new HashMap<>();
    access
        .standings(world, asker, records.values())
        .forEach(one -> found.put(one.record().id().value(), one));
    return found;
  }

  static long record(Clash.Item item) {
    int visit = item.id().indexOf('/');
    return Long.parseLong(visit < 0 ? item.id() : item.id().substring(0, visit));
  }

  /** Null where the whole record is meant. */
  private static Integer visit(Clash.Item item) {
    int visit = item.id().indexOf('/');
    return visit < 0 ? null : Integer.valueOf(item.id().substring(visit + 1));
  }

  private static ItemView item(Clash.Item item, Map<Long, RecordAccess.Standing> standings) {
    RecordAccess.Standing one = item.sort() == Clash.Sort.WORK ? standings.get(record(item)) : null;
    boolean opens = one != null && one.opens();
    // What is only planned has no number.
    boolean kept = opens && one.record().id().value() > 0;
    return new ItemView(
        item.sort(),
        kept ? one.record().id().value() : null,
        kept ? visit(item) : null,
        opens && one.sees(DetailKey.REF) ? one.record().ref() : null,
        opens && one.sees(DetailKey.TITLE) ? one.record().text(DetailKey.TITLE).orElse(null) : null,
        item.span().start(),
        item.span().end());
  }
}
