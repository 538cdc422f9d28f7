package mellowrota.server.crew;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.platform.Asker;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Tells coordinators what was settled for the crew and the house, by whom. */
@RestController
@RequiredArgsConstructor
class ChangeLogController {

  private static final int AT_ONCE = 50;

  /** Of an act that settled much, so many rows are told of. */
  private static final int LOOKED_AT = 20;

  private final People people;
  private final ChangeLog settled;
  private final ActStore acts;
  private final List<NamedRows> named;

  @Schema(name = "SettledLine")
  record LineView(String label, String before, String after) {}

  @Schema(name = "SettledAct")
  record SettledView(
      long act,
      Instant at,
      String who,
      @Schema(example = "crew.hours") String kind,
      @Schema(
              description =
                  "Names of the people, teams, places, regions and duties it changed; the first of many")
          List<String> about,
      @Schema(description = "What changed in it; the first of many") List<LineView> lines,
      @Schema(description = "The sort of change it undid, if it undid one") @Nullable String undoes,
      @Schema(description = "Undone since") boolean undone) {}

  @Schema(name = "SettledPage")
  record PageView(
      List<SettledView> items, @Schema(description = "There are earlier changes") boolean more) {}

  @GetMapping("/api/v1/settled")
  @Operation(summary = "The change log of crew and organisation, newest first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  PageView settled(
      Asker asker,
      @Schema(description = "Only changes before this one") @RequestParam(required = false)
          Long before) {
    people.requireCoordinator(asker);
    List<SettledView> found = acts(before == null ? Long.MAX_VALUE : before);
    return new PageView(found.subList(0, Math.min(AT_ONCE, found.size())), found.size() > AT_ONCE);
  }

  private List<SettledView> acts(long before) {
    List<ActStore.RemoteChanges> found = acts.settling(before, AT_ONCE + 1);
    Map<Long, List<ChangeLog.Row>> rows =
        settled.firstRows(
            found.stream().map(ActStore.RemoteChanges::id).collect(Collectors.toSet()), LOOKED_AT);
    Map<String, String> names = new HashMap<>();
    named.forEach(some -> names.putAll(some.names()));
    ChangeLogWords words = new ChangeLogWords(names);
    return found.stream()
        .map(one -> said(one, words, rows.getOrDefault(one.id(), List.of())))
        .toList();
  }

  private SettledView said(
      ActStore.RemoteChanges one, ChangeLogWords words, List<ChangeLog.Row> rows) {
    return new SettledView(
        one.id(),
        one.at(),
        people.find(PersonId.of(one.actor())).map(Person::name).orElse(""),
        one.kind(),
        rows.stream().flatMap(row -> words.about(row).stream()).distinct().toList(),
        words.lines(rows).stream()
            .map(line -> new LineView(line.label(), line.before(), line.after()))
            .toList(),
        one.undid(),
        one.undone());
  }
}
