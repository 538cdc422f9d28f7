package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import lombok.RequiredArgsConstructor;
import mellowrota.core.find.Names;
import mellowrota.core.find.Piece;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.Place;
import mellowrota.server.sight.World;

/** Pieces of a line that finds, in words. */
@RequiredArgsConstructor
final class FindWords {

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);
  private static final DateTimeFormatter YEAR =
      DateTimeFormatter.ofPattern("EEE d MMM yyyy", Locale.ENGLISH);

  private final World world;
  private final Names names;

  /** What a piece asks for. */
  enum Sort {
    WORDS,
    NEAR,
    REF,
    KIND,
    STATE,
    PERSON,
    NOBODY,
    TEAM,
    PLACE,
    REGION,
    CHAIN,
    TAG,
    CONTACT,
    DETAIL,
    TIME
  }

  /**
   * A piece for its reader.
   *
   * @param said what it asks for
   */
  record Told(Sort sort, String said) {}

  Told told(Piece piece) {
    if (piece instanceof Piece.Words words) {
      return new Told(Sort.WORDS, words.text());
    } else if (piece instanceof Piece.Near near) {
      return new Told(Sort.NEAR, near.text());
    } else if (piece instanceof Piece.Ref ref) {
      return new Told(Sort.REF, ref.ref());
    } else if (piece instanceof Piece.KindIs kind) {
      return new Told(Sort.KIND, kind.kind().word());
    } else if (piece instanceof Piece.StateIs state) {
      return new Told(Sort.STATE, state.state().name().toLowerCase(Locale.ROOT));
    } else if (piece instanceof Piece.Overdue) {
      return new Told(Sort.STATE, "overdue");
    } else if (piece instanceof Piece.On on) {
      return new Told(Sort.PERSON, said(on));
    } else if (piece instanceof Piece.Nobody nobody) {
      return new Told(
          Sort.NOBODY,
          nobody.role().map(role -> say("records.find-no-role", role(role))).orElse("nobody"));
    } else if (piece instanceof Piece.OfTeam of) {
      return new Told(Sort.TEAM, world.crew().team(of.team()).map(Team::name).orElse(""));
    } else if (piece instanceof Piece.AtPlace at) {
      return new Told(Sort.PLACE, world.places().find(at.place()).map(Place::name).orElse(""));
    } else if (piece instanceof Piece.InRegion) {
      return new Told(Sort.REGION, named(piece));
    } else if (piece instanceof Piece.OfChain) {
      return new Told(Sort.CHAIN, named(piece));
    } else if (piece instanceof Piece.Tagged tag) {
      return new Told(Sort.TAG, tag.tag());
    } else if (piece instanceof Piece.Contact contact) {
      return new Told(Sort.CONTACT, contact.text());
    } else if (piece instanceof Piece.Valued valued) {
      return new Told(Sort.DETAIL, said(valued));
    }
    return new Told(Sort.TIME, said((Piece.When) piece));
  }

  private static String said(Piece.Valued valued) {
    String names =
        valued.details().stream()
            .map(DetailDefinition::label)
            .reduce((one, other) -> say("records.find-or", one, other))
            .orElse("");
    return valued
        .test()
        .map(
            test ->
                say(
                    "records.find-value-" + test.name().toLowerCase(Locale.ROOT),
                    names,
                    valued.details().get(0).said(valued.than())))
        .orElseGet(() -> say(valued.isSo() ? "records.find-with" : "records.find-without", names));
  }

  private String named(Piece piece) {
    return names.all().stream()
        .filter(one -> one.piece().equals(piece))
        .map(Names.Named::name)
        .findFirst()
        .orElse("");
  }

  private String said(Piece.On on) {
    String name = world.crew().person(on.person()).map(Person::name).orElse("");
    return on.role().map(role -> say("records.find-as", name, role(role))).orElse(name);
  }

  private String role(RoleId id) {
    return world.role(id).map(Role::name).orElse("");
  }

  /** As {@code due before Wed 2 Dec}, {@code Mon 23 Nov – Fri 27 Nov}; a year that is not this. */
  private String said(Piece.When when) {
    String edge =
        when.edge() == Piece.Edge.ANY ? "" : when.edge().name().toLowerCase(Locale.ROOT) + " ";
    if (when.from().isEmpty()) {
      return edge + say("records.find-before", at(when.until().get()));
    } else if (when.until().isEmpty()) {
      return edge + say("records.find-from", at(when.from().get()));
    }
    LocalDateTime from = when.from().get();
    LocalDateTime until = when.until().get();
    if (!isMidnight(from) || !isMidnight(until)) {
      boolean moment = from.plusMinutes(1).equals(until);
      boolean day = from.toLocalDate().equals(until.toLocalDate());
      String end = day ? until.toLocalTime().toString() : at(until);
      return edge + at(from) + (moment ? "" : "–" + end);
    }
    LocalDate last = until.toLocalDate().minusDays(1);
    LocalDate first = from.toLocalDate();
    return edge + day(first) + (last.equals(first) ? "" : " – " + day(last));
  }

  private static boolean isMidnight(LocalDateTime time) {
    return time.toLocalTime().equals(LocalTime.MIDNIGHT);
  }

  private String at(LocalDateTime time) {
    String day = day(time.toLocalDate());
    return isMidnight(time) ? day : day + " " + time.toLocalTime();
  }

  private String day(LocalDate day) {
    return (day.getYear() == world.day().getYear() ? DAY : YEAR).format(day);
  }
}
