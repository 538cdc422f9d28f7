package mellowrota.server.crew;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.platform.Asker;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Tells coordinators what was settled for the crew and the house, by whom. */
@RestController
class SettledController {

  private static final int AT_ONCE = 50;

  /** Of an act that settled much, so many rows are told of. */
  private static final int LOOKED_AT = 20;

  private final People people;
  private final SettledActs settled;
  private final ActStore acts;
  private final List<NamedRows> named;

  SettledController(People people, SettledActs settled, ActStore acts, List<NamedRows> named) {
    this.people = people;
    this.settled = settled;
    this.acts = acts;
    this.named = named;
  }

  @Schema(name = "SettledLine")
  record LineView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String before,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String after) {}

  @JsonInclude(JsonInclude.Include.NON_NULL)
  @Schema(name = "SettledAct")
  record SettledView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long act,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant at,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String who,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, example = "crew.hours") String kind,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description =
                  "Names of people, teams, places, regions and duties it changed; the first of many")
          List<String> about,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "What changed in it; the first of many")
          List<LineView> lines,
      @Schema(description = "What sort of act it took back, if it took one back") String undoes,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "Taken back meanwhile")
          boolean undone) {}

  @Schema(name = "SettledPage")
  record PageView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<SettledView> items,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "There are earlier ones")
          boolean more) {}

  @GetMapping("/api/v1/settled")
  @Operation(summary = "What was settled for the crew and the house, newest first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  PageView settled(
      Asker asker,
      @Schema(description = "Only acts before this one") @RequestParam(required = false)
          Long before) {
    people.requireCoordinator(asker);
    List<SettledView> found = acts(before == null ? Long.MAX_VALUE : before);
    return new PageView(found.subList(0, Math.min(AT_ONCE, found.size())), found.size() > AT_ONCE);
  }

  private List<SettledView> acts(long before) {
    List<ActStore.Settling> found = acts.settling(before, AT_ONCE + 1);
    Map<Long, List<SettledActs.Row>> rows =
        settled.firstRows(
            found.stream().map(ActStore.Settling::id).collect(Collectors.toSet()), LOOKED_AT);
    Map<String, String> names = new HashMap<>();
    named.forEach(some -> names.putAll(some.names()));
    SettledWords words = new SettledWords(names);
    return found.stream()
        .map(one -> said(one, words, rows.getOrDefault(one.id(), List.of())))
        .toList();
  }

  private SettledView said(ActStore.Settling one, SettledWords words, List<SettledActs.Row> rows) {
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
