package mellowrota.server.links;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.links.store.WaitingCopies;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Links as they are told, to whoever's they are and to the office. */
@Component
@RequiredArgsConstructor
class LinkViews {

  private final LinkStore store;
  private final WaitingCopies copies;

  @Schema(name = "LinkedCalendar")
  record OutletView(
      long id,
      String href,
      String name,
      @Nullable Boolean mayWrite,
      @Nullable Long writes,
      @Nullable String writesName,
      List<String> families,
      @Nullable LocalDate from,
      LinkInput.AlsoRead alsoRead,
      List<Long> people,
      boolean readsBusy,
      @Nullable Instant readAt,
      @Schema(description = "Somebody else decides where this goes, so nothing is copied here")
          boolean overruled,
      @Schema(description = "Copies that are there") long sent,
      @Schema(description = "Copies still to be sent or removed") long open,
      @Schema(description = "Of those, copies that the server refused") long refused) {}

  @Schema(name = "Link")
  record LinkView(
      long id,
      String owner,
      @Schema(description = "The caller may change it; for others only whether it works is shown")
          boolean mine,
      boolean ofTheHouse,
      String host,
      String account,
      @Schema(description = "It is being unlinked") boolean ends,
      @Schema(description = "Stopped: nothing is sent or read until it is resumed") boolean stopped,
      @Schema(description = "The problem, as a code") @Nullable String fault,
      @Nullable String faultWords,
      @Nullable Instant faultSince,
      List<OutletView> calendars,
      @With String tag)
      implements AsSeen.Tagged<LinkView> {

    /** Of what its owner says; how its copies fare changes by itself. */
    LinkView tagged() {
      return withTag(
          AsSeen.tag(
              calendars.stream()
                  .map(
                      one ->
                          List.of(
                              one.href,
                              Optional.ofNullable(one.writes),
                              one.families,
                              Optional.ofNullable(one.from),
                              one.alsoRead,
                              one.people,
                              one.readsBusy))
                  .toList()));
    }
  }

  /** Whether it works is the office's to know; where the account is and what is in it, is not. */
  static LinkView watched(LinkView link) {
    List<OutletView> calendars =
        link.calendars().stream()
            .map(
                one ->
                    new OutletView(
                        one.id(),
                        "",
                        "",
                        null,
                        one.writes(),
                        one.writesName(),
                        one.families(),
                        one.from(),
                        one.alsoRead(),
                        one.people(),
                        one.readsBusy(),
                        one.readAt(),
                        one.overruled(),
                        one.sent(),
                        one.open(),
                        one.refused()))
            .toList();
    return new LinkView(
        link.id(),
        link.owner(),
        false,
        false,
        "",
        "",
        link.ends(),
        link.stopped(),
        link.fault(),
        link.fault() == null ? null : OutsideFault.Kind.valueOf(link.fault()).inGeneral(),
        link.faultSince(),
        calendars,
        "");
  }

  LinkView of(World world, LinkStore.Link link) {
    LinkView view =
        new LinkView(
            link.id(),
            link.person().map(person -> ReaderWords.name(world, person)).orElse("The house"),
            true,
            link.person().isEmpty(),
            link.home().getHost(),
            link.account(),
            link.ends(),
            link.stopped().isPresent(),
            link.fault().orElse(null),
            link.faultWords().orElse(null),
            link.faultSince().orElse(null),
            store.outlets(link.id()).stream().map(outlet -> of(world, outlet)).toList(),
            "");
    return view.tagged();
  }

  private OutletView of(World world, LinkStore.Outlet outlet) {
    WaitingCopies.Counts counts = copies.counts(outlet.id());
    Optional<CalendarId> writes = outlet.withdrawn() ? Optional.empty() : outlet.calendar();
    boolean people = Character.isDigit(outlet.alsoRead().charAt(0));
    return new OutletView(
        outlet.id(),
        outlet.href().toString(),
        outlet.name(),
        outlet.mayWrite().orElse(null),
        writes.map(CalendarId::value).orElse(null),
        writes.flatMap(world.calendars()::find).map(Calendar::name).orElse(null),
        new TreeSet<>(outlet.families()).stream().map(Enum::name).toList(),
        outlet.from().orElse(null),
        people ? LinkInput.AlsoRead.PEOPLE : LinkInput.AlsoRead.valueOf(outlet.alsoRead()),
        people
            ? Arrays.stream(outlet.alsoRead().split(",")).map(Long::valueOf).toList()
            : List.of(),
        outlet.readsBusy(),
        outlet.readAt().orElse(null),
        outlet.overruled(),
        counts.sent(),
        counts.open(),
        counts.refused());
  }
}
