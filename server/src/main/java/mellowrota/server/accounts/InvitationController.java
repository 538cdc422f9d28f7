package mellowrota.server.accounts;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.People;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Invitations: made by coordinators, taken up by whoever holds the link. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class InvitationController {

  private final Accounts accounts;
  private final People people;

  @Schema(name = "InvitationWish")
  record WishSchema(String email, @Schema(description = "Not NONE") Person.AccountRight right) {}

  /** A fresh one-time link, relative to the house's address. */
  @Schema(name = "InvitationLink")
  record LinkView(String link) {}

  /** Whom an invitation is for; without a name it is for the first coordinator. */
  @Schema(name = "Invitation")
  record InvitedView(@Nullable String name, @Nullable String email) {}

  @Schema(name = "InvitationAnswer")
  record AcceptSchema(
      String password,
      @Schema(description = "Only for the first coordinator") @Nullable String name,
      @Schema(description = "Only for the first coordinator") @Nullable String email) {}

  @PostMapping("/people/{id}/invitation")
  @Operation(summary = "Give a person an account and create a one-time link for it")
  @Transactional
  ResponseEntity<LinkView> invite(
      Asker asker,
      @PathVariable long id,
      @RequestBody @Schema(implementation = WishSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, WishSchema.class);
    String email = input.required("email", 254);
    if (!email.isEmpty() && !email.matches("[^@\\s:]+@[^@\\s:]+")) {
      input.fault("email", say("accounts.is-not-an-email"));
    }
    Optional<Person.AccountRight> right = input.choice("right", Person.AccountRight.class);
    if (right.isEmpty() || right.get() == Person.AccountRight.NONE) {
      input.fault("right", say("accounts.must-be-one-of"));
    }
    input.check();
    PersonId person = PersonId.of(id);
    Person known = people.find(person).orElseThrow(Problem::notFound);
    if (known.hasLeft()) {
      throw Problem.of(409, "has-left", say("accounts.this-person-has-left"));
    }
    people.setRight(asker.person(), person, right.orElseThrow());
    accounts.open(person, email);
    return ResponseEntity.status(201)
        .body(new LinkView("/welcome/" + accounts.invite(Optional.of(person))));
  }

  @GetMapping("/invitations/{token}")
  @Operation(summary = "Who an invitation is for")
  @Transactional(readOnly = true)
  InvitedView invited(@PathVariable String token) {
    Optional<PersonId> person = open(token);
    return new InvitedView(
        person.flatMap(people::find).map(Person::name).orElse(null),
        person.flatMap(accounts::emailOf).orElse(null));
  }

  @PostMapping("/invitations/{token}")
  @Operation(summary = "Accept an invitation: set a password and use up the link")
  @Transactional
  ResponseEntity<Void> accept(
      @PathVariable String token,
      @RequestBody @Schema(implementation = AcceptSchema.class) JsonNode body) {
    Optional<PersonId> invited = open(token);
    Input input = Input.of(body, AcceptSchema.class);
    String password = input.asTyped("password", 200);
    String name = invited.isEmpty() ? input.required("name", 100) : "";
    String email = invited.isEmpty() ? input.required("email", 254) : "";
    input.check();
    accounts.useUp(token);
    PersonId person =
        invited.orElseGet(
            () -> {
              PersonId first = people.addFirstCoordinator(name);
              accounts.open(first, email);
              return first;
            });
    accounts.accept(person, password);
    return ResponseEntity.noContent().build();
  }

  private Optional<PersonId> open(String token) {
    return accounts.invited(token).orElseThrow(Accounts::ended);
  }
}
