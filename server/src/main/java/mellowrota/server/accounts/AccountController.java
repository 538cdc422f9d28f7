package mellowrota.server.accounts;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.server.accounts.store.AccountStore;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** One's own account: password and app passwords. */
@RestController
@RequestMapping("/api/v1/account")
@RequiredArgsConstructor
class AccountController {

  private final Accounts accounts;

  @Schema(name = "PasswordChange")
  record PasswordSchema(String old, String password) {}

  @Schema(name = "AppPasswordWish")
  record WishSchema(String label, @Schema(description = "The person signed in") String password) {}

  /**
   * Where one is signed in.
   *
   * @param device what the browser called itself
   * @param here whether it is the session that asks
   */
  @Schema(name = "SignedIn")
  record SessionView(String id, String device, Instant since, Instant lastUsedAt, boolean here) {}

  /**
   * An app password.
   *
   * @param text only in the answer that makes it
   */
  @Schema(name = "AppPassword")
  record AppPasswordView(
      long id, String label, Instant madeAt, @Nullable Instant lastUsedAt, @Nullable String text) {
    static AppPasswordView of(AccountStore.AppPassword one, String text) {
      return new AppPasswordView(
          one.id(), one.label(), one.madeAt(), one.lastUsedAt().orElse(null), text);
    }
  }

  @PostMapping("/password")
  @Operation(summary = "Change your password; your other sessions end")
  ResponseEntity<Void> password(
      Asker asker,
      HttpServletRequest request,
      @RequestBody @Schema(implementation = PasswordSchema.class) JsonNode body) {
    Input input = Input.of(body, PasswordSchema.class);
    String old = input.asTyped("old", 200);
    String password = input.asTyped("password", 200);
    input.check();
    accounts.changePassword(
        asker.person(), old, password, request.getSession(false).getId(), Caller.of(request));
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/sessions")
  @Operation(summary = "List where you are signed in: this session first, then by last use")
  List<SessionView> sessions(Asker asker, HttpServletRequest request) {
    return accounts.signedIn(asker.person(), request.getSession(false).getId()).stream()
        .map(
            one ->
                new SessionView(one.id(), one.device(), one.since(), one.lastUsedAt(), one.here()))
        .toList();
  }

  @DeleteMapping("/sessions/{id}")
  @Operation(summary = "Sign out one of your sessions")
  ResponseEntity<Void> endSession(Asker asker, @PathVariable String id) {
    accounts.endSession(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/app-passwords")
  @Operation(summary = "List your app passwords, without their text")
  @Transactional(readOnly = true)
  List<AppPasswordView> list(Asker asker) {
    return accounts.appPasswords(asker.person()).stream()
        .map(one -> AppPasswordView.of(one, null))
        .toList();
  }

  @PostMapping("/app-passwords")
  @Operation(summary = "Create an app password for a calendar app; its text is shown only once")
  ResponseEntity<AppPasswordView> make(
      Asker asker,
      HttpServletRequest request,
      @RequestBody @Schema(implementation = WishSchema.class) JsonNode body) {
    Input input = Input.of(body, WishSchema.class);
    String label = input.required("label", 60);
    String password = input.asTyped("password", 200);
    input.check();
    Accounts.NewAppPassword made =
        accounts.makeAppPassword(asker.person(), label, password, Caller.of(request));
    return ResponseEntity.status(201).body(AppPasswordView.of(made.kept(), made.text()));
  }

  @DeleteMapping("/app-passwords/{id}")
  @Operation(summary = "Delete an app password")
  ResponseEntity<Void> withdraw(Asker asker, @PathVariable long id) {
    accounts.withdrawAppPassword(asker.person(), id);
    return ResponseEntity.noContent().build();
  }
}
