package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.PersonId;
import mellowrota.core.sight.Pattern;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What somebody calls things on their own calendar, in place of the wordings' titles. */
@RestController
@RequestMapping("/api/v1/account/title")
@RequiredArgsConstructor
class OwnTitleController {

  private static final int LONGEST = 300;

  private final Worlds worlds;
  private final Acts acts;
  private final Persons persons;
  private final Entries entries;
  private final AsSeen asSeen;

  /**
   * A person's own title.
   *
   * @param title a pattern; empty: things are titled as the wordings say
   * @param fixed why the house lets nobody do so
   * @param details what a pattern may ask for; what may not be shown there stays away all the same
   */
  @Schema(name = "OwnTitle")
  record TitleView(String title, @Nullable String fixed, List<String> details, @With String tag)
      implements AsSeen.Tagged<TitleView> {}

  @Schema(name = "OwnTitleChange")
  record ChangeSchema(String title) {}

  @GetMapping
  @Operation(summary = "The caller’s titles on their own calendar")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  TitleView title(Asker asker) {
    World world = worlds.now();
    return AsSeen.tagged(
        new TitleView(
            Optional.ofNullable(world.wordings().ownTitles().get(asker.person()))
                .map(Pattern::toString)
                .orElse(""),
            world.wordings().titlesFixed().orElse(null),
            world.details().all().stream()
                .map(DetailDefinition::key)
                .filter(key -> !key.equals(DetailKey.TIMES) && !key.equals(DetailKey.MARGINS))
                .map(DetailKey::name)
                .toList(),
            ""));
  }

  @PutMapping
  @Operation(summary = "Set the titles on the caller’s own calendar; empty: the usual wording")
  ResponseEntity<Void> change(
      Asker asker,
      IfMatch match,
      @RequestBody @Schema(implementation = ChangeSchema.class) JsonNode body) {
    Input input = Input.of(body, ChangeSchema.class);
    if (!input.has("title")) {
      input.fault("title", say("rules.is-missing-send-an"));
    }
    String title = input.text("title", LONGEST);
    World world = worlds.now();
    for (Pattern.Fault fault : Pattern.parse(title, Worlds.keys(world.details().all())).faults()) {
      input.fault("title", say("rules.at-character", (fault.position() + 1), fault.message()));
    }
    input.check();
    asSeen.change(match, () -> title(asker), body, () -> call(asker, title));
    return ResponseEntity.noContent().build();
  }

  private void call(Asker asker, String title) {
    acts.run(
        Acts.Wanted.by(asker.person(), "account.title", Optional.empty(), "").changingTheWorld(),
        act -> {
          Optional<String> fixed = worlds.now().wordings().titlesFixed();
          if (fixed.isPresent() && !title.isEmpty()) {
            throw Problem.forbidden(say("rules.titles-are-set-by", fixed.get()));
          }
          persons.setOwnTitle(asker.person(), Optional.of(title).filter(one -> !one.isEmpty()));
          act.reaches(onTheirs(asker.person()));
          return "";
        });
  }

  private List<RecordId> onTheirs(PersonId person) {
    return entries.records(worlds.now().calendars().own(person).orElseThrow().id(), Instant.EPOCH);
  }
}
