package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Family;
import mellowrota.core.people.PersonId;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;

/** Reads what is said about an account and what its calendars are for. */
@Component
@RequiredArgsConstructor
class LinkInput {

  private static final int MOST_CALENDARS = 50;
  private static final int MOST_PEOPLE = 50;

  private final Host host;
  private final Worlds worlds;

  /** Whoever else reads the outside calendar, as its owner said (SIGHT 1). */
  enum AlsoRead {
    UNSAID,
    NOBODY,
    OTHERS,
    PEOPLE
  }

  @Schema(name = "OutsideAccount")
  record AccountSchema(
      @Schema(description = "An address (https://host/), a host's name or a mail address")
          String address,
      String user,
      @Schema(description = "Preferably an app password") String password) {}

  @Schema(name = "LinkWish")
  record AddSchema(
      String address,
      String user,
      String password,
      @Schema(description = "For the organisation, not for the caller")
          @Nullable Boolean ofTheHouse,
      List<CalendarSchema> calendars) {}

  @Schema(name = "LinkChange")
  record ChangeSchema(@Nullable String password, @Nullable List<CalendarSchema> calendars) {}

  @Schema(name = "LinkedCalendarWish")
  record CalendarSchema(
      String href,
      @Schema(description = "The calendar of ours that is copied there; absent: nothing is copied")
          @Nullable Long writes,
      @Schema(description = "Which entries it takes: WORK, GIVEN_DUE, DUE; default: all")
          @Nullable List<String> families,
      @Schema(description = "Work that ended before this day is left out; default: today")
          @Nullable LocalDate from,
      @Schema(description = "Who else reads it: UNSAID, NOBODY, OTHERS or PEOPLE")
          @Nullable AlsoRead alsoRead,
      @Nullable List<Long> people,
      @Nullable Boolean readsBusy) {}

  Input account(JsonNode body) {
    return Input.of(body, AccountSchema.class);
  }

  Input link(JsonNode body) {
    return Input.of(body, AddSchema.class);
  }

  Input change(JsonNode body) {
    return Input.of(body, ChangeSchema.class);
  }

  /** The account that is named; its address is looked up. */
  Host.Account account(Input input) throws OutsideFault {
    String address = input.required("address", 300);
    String user = input.required("user", 200);
    String password = input.required("password", 500);
    input.check();
    return new Host.Account(host.begin(address), user, password);
  }

  /** What each of the account's calendars is for. */
  List<Links.Wanted> wanted(Input input, List<Host.Found> found) {
    Map<String, Host.Found> byHref = new HashMap<>();
    found.forEach(one -> byHref.put(one.href().toString(), one));
    List<Links.Wanted> wanted = new ArrayList<>();
    for (Input one : input.objects("calendars", MOST_CALENDARS, CalendarSchema.class)) {
      String href = one.required("href", 500);
      Host.Found known = byHref.get(href);
      if (known == null && !href.isEmpty()) {
        one.fault("href", say("links.is-not-a-calendar"));
      }
      AlsoRead also = one.choice("alsoRead", AlsoRead.class).orElse(AlsoRead.UNSAID);
      Optional<CalendarId> writes =
          one.number("writes").stream().mapToObj(CalendarId::of).findFirst();
      if (known != null && writes.isPresent() && !known.mayWrite().orElse(true)) {
        one.fault("writes", say("links.needs-a-calendar-that"));
      }
      Set<Family> families = families(one);
      LocalDate from = one.day("from").orElse(worlds.now().day());
      if (known != null) {
        wanted.add(
            new Links.Wanted(
                known.href(),
                known.name(),
                known.mayWrite(),
                known.resource(),
                writes,
                families,
                Optional.of(from),
                also == AlsoRead.PEOPLE ? people(one) : also.name(),
                one.flag("readsBusy").orElse(false)));
      }
    }
    input.check();
    return wanted;
  }

  private static Set<Family> families(Input one) {
    Set<Family> found = new TreeSet<>();
    for (String name : one.texts("families", 3, 20)) {
      try {
        found.add(Family.valueOf(name));
      } catch (IllegalArgumentException unknown) {
        one.fault("families", say("links.must-be-work-given"));
      }
    }
    return found;
  }

  private String people(Input one) {
    List<Long> people = one.numbers("people", MOST_PEOPLE);
    World world = worlds.now();
    if (people.isEmpty()
        || people.stream().anyMatch(id -> world.crew().person(PersonId.of(id)).isEmpty())) {
      one.fault("people", say("links.are-missing-or-not"));
      return AlsoRead.UNSAID.name();
    }
    return people.stream().map(String::valueOf).collect(Collectors.joining(","));
  }
}
