package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.regex.Pattern;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.SavedViews;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Lists of records narrowed in ways that are wanted again; each shows only what its reader may. */
@RestController
@RequestMapping("/api/v1/views")
@RequiredArgsConstructor
class ViewsController {

  /** As the list's address has it: names and values, percent-encoded. */
  private static final Pattern QUERY =
      Pattern.compile("(?:(?:find|state|kind|person|place|sort)=[A-Za-z0-9%+._,*-]*(?:&(?!$)|$))*");

  private static final int MOST = 50;

  private final SavedViews views;
  private final Worlds worlds;

  /**
   * A saved view.
   *
   * @param query as the address of the list has it
   * @param forAll whether everybody in the office has it
   * @param mine whether the asker made it, and may let it go
   */
  @Schema(name = "SavedView")
  record View(long id, String name, String query, boolean forAll, boolean mine) {}

  @Schema(name = "SavedViewWish")
  record Wish(String name, String query, @Nullable Boolean forAll) {}

  @GetMapping
  @Operation(summary = "List the caller’s saved views, and in the office the shared ones")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<View> list(Asker asker) {
    Person me = worlds.now().person(asker.person());
    boolean office = me.isCoordinator() || me.isTeamCoordinator();
    return views.of(me.id(), office).stream().map(one -> view(one, me)).toList();
  }

  private static View view(SavedViews.Saved saved, Person asker) {
    return new View(
        saved.id(),
        saved.name(),
        saved.query(),
        saved.forAll(),
        saved.person() == asker.id().value());
  }

  @PostMapping
  @Operation(summary = "Save a view; one of the same name is replaced")
  @Transactional
  ResponseEntity<View> save(
      Asker asker, @RequestBody @Schema(implementation = Wish.class) JsonNode body) {
    Person me = worlds.now().person(asker.person());
    Input input = Input.of(body, Wish.class);
    String name = input.required("name", 60);
    String query = input.text("query", 1000);
    boolean forAll = input.flag("forAll").orElse(false);
    if (!QUERY.matcher(query).matches()) {
      input.fault("query", say("records.is-not-a-filter"));
    }
    if (forAll && !me.isCoordinator()) {
      input.fault("forAll", say("records.can-only-be-set-by"));
    }
    input.check();
    requireRoom(me);
    View saved = view(views.save(me.id(), name, query, forAll), me);
    return ResponseEntity.status(201).body(saved);
  }

  private void requireRoom(Person person) {
    if (views.of(person.id(), false).size() >= MOST) {
      throw Problem.of(422, "too-many", say("records.you-have-saved-views", MOST));
    }
  }

  @DeleteMapping("/{id}")
  @Operation(summary = "Delete a saved view")
  @Transactional
  ResponseEntity<Void> letGo(Asker asker, @PathVariable long id) {
    if (!views.letGo(asker.person(), id)) {
      throw Problem.notFound();
    }
    return ResponseEntity.noContent().build();
  }
}
