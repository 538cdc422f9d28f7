package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.sync.Deciding;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Links over HTTP. A password comes in and never goes out. */
@RestController
@RequestMapping("/api/v1/links")
@RequiredArgsConstructor
class LinksController {

  private final Links links;
  private final LinkInput inputs;
  private final LinkPreviews looks;
  private final Deciders deciders;
  private final LinkStore store;
  private final Host host;
  private final WriteTest writeTest;
  private final TryLimit tries;
  private final StandingEntries standsThere;
  private final Worlds worlds;
  private final LinkViews views;
  private final AsSeen asSeen;

  @Schema(name = "FoundCalendar")
  record FoundView(
      String href,
      String name,
      @Schema(description = "Whether it may be written to; absent: the server does not say")
          @Nullable Boolean mayWrite) {}

  @Schema(name = "LinkTried")
  record TriedView(
      boolean found,
      String words,
      @Schema(description = "The problem, as a code: NAME, TLS, PASSWORD, …; empty: none")
          String fault,
      @Schema(
              description =
                  "Where the server says the account is, if elsewhere; ask before sending a password there")
          @Nullable String elsewhere,
      List<FoundView> calendars) {}

  @Schema(name = "LinkMade")
  record MadeView(long id) {}

  @PostMapping("/try")
  @Operation(summary = "Check whether an account can be linked, and list its calendars")
  TriedView tryIt(
      Asker asker,
      @RequestBody @Schema(implementation = LinkInput.AccountSchema.class) JsonNode body) {
    Input input = inputs.account(body);
    try {
      Host.Discovered found = tries.of(asker.person(), () -> host.discover(inputs.account(input)));
      return new TriedView(
          true,
          words(found),
          "",
          null,
          found.calendars().stream().map(LinksController::view).toList());
    } catch (OutsideFault fault) {
      return new TriedView(
          false,
          fault.getMessage(),
          fault.kind().name(),
          fault.elsewhere().orElse(null),
          List.of());
    }
  }

  private static String words(Host.Discovered found) {
    int count = found.calendars().size();
    String calendars =
        count == 0
            ? say("links.connected-to-none")
            : count == 1 ? say("links.connected-to-one") : say("links.connected", count);
    return calendars
        + found
            .clockOff()
            .map(off -> " " + say("links.clock-off", off.abs().toMinutes()))
            .orElse("");
  }

  private static FoundView view(Host.Found one) {
    return new FoundView(one.href().toString(), one.name(), one.mayWrite().orElse(null));
  }

  @PostMapping("/look")
  @Operation(summary = "Preview what a link would send and read")
  List<LinkPreviews.LookView> look(
      Asker asker, @RequestBody @Schema(implementation = LinkInput.AddSchema.class) JsonNode body) {
    Input input = inputs.link(body);
    input.flag("ofTheHouse");
    try {
      return tries.of(
          asker.person(),
          () -> {
            Host.Account account = inputs.account(input);
            List<Links.Wanted> wanted = inputs.wanted(input, host.discover(account).calendars());
            return looks.at(worlds.now().person(asker.person()), account, wanted);
          });
    } catch (OutsideFault fault) {
      throw Problem.fault("/address", say("links.cannot-be-linked", fault.getMessage()));
    }
  }

  @PostMapping
  @Operation(summary = "Link calendars of an account")
  ResponseEntity<MadeView> add(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = LinkInput.AddSchema.class) JsonNode body) {
    Input input = inputs.link(body);
    boolean ofTheHouse = input.flag("ofTheHouse").orElse(false);
    try {
      Host.Account account = inputs.account(input);
      Host.Discovered found = tries.of(asker.person(), () -> host.discover(account));
      List<Links.Wanted> wanted = inputs.wanted(input, found.calendars());
      long id = links.add(asker.person(), key.value(), ofTheHouse, account, found.home(), wanted);
      return ResponseEntity.status(201).body(new MadeView(id));
    } catch (OutsideFault fault) {
      throw Problem.fault("/address", say("links.cannot-be-linked", fault.getMessage()));
    }
  }

  @GetMapping
  @Operation(
      summary =
          "List the caller’s links; coordinators also see the organisation’s, and who else is linked")
  List<LinkViews.LinkView> links(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    List<LinkViews.LinkView> found = new ArrayList<>();
    Set<Long> mine = new HashSet<>();
    for (LinkStore.Link link : links.of(me)) {
      mine.add(link.id());
      found.add(views.of(world, link));
    }
    if (me.isCoordinator()) {
      store.all().stream()
          .filter(link -> !mine.contains(link.id()))
          .forEach(link -> found.add(LinkViews.watched(views.of(world, link))));
    }
    return found;
  }

  @PatchMapping("/{id}")
  @Operation(summary = "Change a link: its password, or the calendars to copy to and read")
  ResponseEntity<Void> change(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = LinkInput.ChangeSchema.class) JsonNode body) {
    Input input = inputs.change(body);
    Person person = worlds.now().person(asker.person());
    LinkStore.Link link = links.mine(person, id);
    String password = input.has("password") ? input.required("password", 500) : "";
    input.check();
    try {
      Host.Account account = account(link, password);
      List<Host.Found> found = tries.of(asker.person(), () -> host.calendars(account, link.home()));
      List<Links.Wanted> wanted = inputs.wanted(input, found);
      asSeen.change(
          match,
          () -> views.of(worlds.now(), links.mine(person, id)),
          body,
          () -> links.change(asker.person(), id, password, wanted));
    } catch (OutsideFault fault) {
      throw Problem.of(409, "outside-fault", fault.getMessage());
    }
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/{id}/again")
  @Operation(summary = "Check the account now, and retry what failed")
  ResponseEntity<Void> again(Asker asker, @PathVariable long id) {
    links.again(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/{id}/stop")
  @Operation(summary = "Stop a link: nothing is sent or read until it is resumed")
  ResponseEntity<Void> stop(Asker asker, @PathVariable long id) {
    links.stop(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  @PostMapping("/{id}/go-on")
  @Operation(summary = "Resume a stopped link")
  ResponseEntity<Void> goOn(Asker asker, @PathVariable long id) {
    links.goOn(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  @Schema(name = "LinkDecided")
  record DecidedView(long person, String name, Deciding.By by) {}

  @GetMapping("/decided")
  @Operation(
      summary =
          "Who decides where people's own work is copied: for the asker, or for a coordinator all")
  List<DecidedView> decided(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Map<PersonId, Deciding> all = deciders.all();
    Deciding.By otherwise = Deciding.of(deciders.isLocked(), List.of()).by();
    return world.crew().people().stream()
        .filter(one -> !one.hasLeft())
        .filter(one -> me.isCoordinator() || one.id().equals(me.id()))
        .map(
            one ->
                new DecidedView(
                    one.id().value(),
                    one.name(),
                    all.containsKey(one.id()) ? all.get(one.id()).by() : otherwise))
        .toList();
  }

  private Host.Account account(LinkStore.Link link, String password) throws OutsideFault {
    return password.isEmpty()
        ? store.account(link)
        : new Host.Account(link.home(), link.account(), password);
  }

  @Schema(name = "LinkProof")
  record ProofView(boolean good, String words, List<StepView> steps) {

    static ProofView of(List<StepView> steps) {
      boolean good = steps.stream().allMatch(StepView::good);
      return new ProofView(
          good, good ? say("links.a-test-entry-was-sent") : say("links.a-test-entry-was"), steps);
    }
  }

  @Schema(name = "LinkProofStep")
  record StepView(String what, boolean good, String sent, String read) {}

  @PostMapping("/{id}/calendars/{calendar}/prove")
  @Operation(summary = "Send a test entry, change it, read it back and remove it")
  ProofView prove(Asker asker, @PathVariable long id, @PathVariable long calendar) {
    World world = worlds.now();
    LinkStore.Link link = links.mine(world.person(asker.person()), id);
    LinkStore.Outlet outlet =
        store.outlets(link.id()).stream()
            .filter(one -> one.id() == calendar)
            .findFirst()
            .orElseThrow(Problem::notFound);
    try {
      List<StepView> steps =
          tries
              .of(
                  asker.person(),
                  () -> writeTest.of(store.account(link), outlet.href(), world.house().zone()))
              .stream()
              .map(one -> new StepView(one.what(), one.good(), one.sent(), one.read()))
              .toList();
      return ProofView.of(steps);
    } catch (OutsideFault fault) {
      return new ProofView(false, fault.getMessage(), List.of());
    }
  }

  @GetMapping("/{id}/standing")
  @Operation(summary = "Our entries in a link’s calendars, as last seen")
  List<StandingEntries.StandingView> standing(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    Person person = world.person(asker.person());
    return standsThere.of(world, person, links.mine(person, id));
  }

  @PostMapping("/{id}/leave")
  @Operation(summary = "Unlink at once and leave our entries there, which the answer lists")
  List<StandingEntries.StandingView> leave(Asker asker, @PathVariable long id) {
    List<StandingEntries.StandingView> left = standing(asker, id);
    links.leave(asker.person(), id);
    return left;
  }

  @DeleteMapping("/{id}")
  @Operation(summary = "Unlink; our entries there are removed first")
  ResponseEntity<Void> end(Asker asker, @PathVariable long id) {
    links.end(asker.person(), id);
    return ResponseEntity.noContent().build();
  }
}
