package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.Validity;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What people can, over HTTP; for themselves and their office. */
@RestController
@RequestMapping("/api/v1/people/{id}/skills")
@RequiredArgsConstructor
class SkillsController {

  private static final int MOST_SKILLS = 40;

  private final People people;
  private final WorkTimes times;
  private final Skills skills;
  private final AsSeen asSeen;

  @Schema(name = "Skill")
  record SkillView(
      String skill,
      @Schema(description = "First day on which it is valid; absent: it always was")
          @Nullable LocalDate first,
      @Schema(description = "Last day on which it is valid; absent: no end")
          @Nullable LocalDate last) {}

  @Schema(name = "Skills")
  record SkillsView(
      List<SkillView> skills,
      @Schema(description = "Counts only together with somebody who is not marked so")
          boolean notAlone,
      @With String tag)
      implements AsSeen.Tagged<SkillsView> {}

  @Schema(name = "SkillsChange")
  record SkillsSchema(List<SkillView> skills, @Nullable Boolean notAlone) {}

  @GetMapping
  @Operation(summary = "Skills of a person, for that person and their office")
  @Transactional(readOnly = true)
  SkillsView skills(Asker asker, @PathVariable long id) {
    PersonId person = PersonId.of(id);
    if (!person.equals(asker.person())) {
      times.requireOffice(asking(asker), person);
    }
    Skills.Known known = skills.all().getOrDefault(person, Skills.Known.NOTHING);
    return AsSeen.tagged(
        new SkillsView(
            new TreeMap<>(known.skills())
                .entrySet().stream()
                    .map(
                        one ->
                            new SkillView(
                                one.getKey(),
                                one.getValue().first().orElse(null),
                                one.getValue().last().orElse(null)))
                    .toList(),
            known.notAlone(),
            ""));
  }

  private Person asking(Asker asker) {
    return people.find(asker.person()).orElseThrow(Problem::notFound);
  }

  @PutMapping
  @Operation(summary = "Set the skills of a person")
  ResponseEntity<Void> set(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = SkillsSchema.class) JsonNode body) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    Skills.Known known = known(Input.of(body, SkillsSchema.class));
    asSeen.change(
        match, () -> skills(asker, id), body, () -> skills.set(asker.person(), person, known));
    return ResponseEntity.noContent().build();
  }

  private static Skills.Known known(Input input) {
    Map<String, Validity> found = new TreeMap<>();
    for (Input one : input.objects("skills", MOST_SKILLS, SkillView.class)) {
      String skill = one.required("skill", 40);
      if (found.put(skill, one.validity()) != null) {
        one.fault("skill", say("common.is-listed-twice"));
      }
    }
    if (!input.has("skills")) {
      input.fault("skills", say("crew.are-missing-send-an"));
    }
    boolean notAlone = input.flag("notAlone").orElse(false);
    input.check();
    return new Skills.Known(found, notAlone);
  }
}
