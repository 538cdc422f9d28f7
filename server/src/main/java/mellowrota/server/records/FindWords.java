package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import lombok.RequiredArgsConstructor;
import mellowrota.core.find.Piece;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
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
    TAG,
    CONTACT,
    TIME;

    static Sort of(Piece piece) {
      if (piece instanceof Piece.Words) {
        return WORDS;
      } else if (piece instanceof Piece.Near) {
        return NEAR;
      } else if (piece instanceof Piece.Ref) {
        return REF;
      } else if (piece instanceof Piece.KindIs) {
        return KIND;
      } else if (piece instanceof Piece.StateIs || piece instanceof Piece.Overdue) {
        return STATE;
      } else if (piece instanceof Piece.On) {
        return PERSON;
      } else if (piece instanceof Piece.Nobody) {
        return NOBODY;
      } else if (piece instanceof Piece.OfTeam) {
        return TEAM;
      } else if (piece instanceof Piece.AtPlace) {
        return PLACE;
      } else if (piece instanceof Piece.InRegion) {
        return REGION;
      } else if (piece instanceof Piece.Tagged) {
        return TAG;
      }
      return piece instanceof Piece.Contact ? CONTACT : TIME;
    }
  }

  String said(Piece piece) {
    if (piece instanceof Piece.Words words) {
      return words.text();
    } else if (piece instanceof Piece.Near near) {
      return near.text();
    } else if (piece instanceof Piece.Ref ref) {
      return ref.ref();
    } else if (piece instanceof Piece.KindIs kind) {
      return kind.kind().word();
    } else if (piece instanceof Piece.StateIs state) {
      return state.state().name().toLowerCase(Locale.ROOT);
    } else if (piece instanceof Piece.On on) {
      String name = world.crew().person(on.person()).map(Person::name).orElse("");
      return on.role().map(role -> say("records.find-as", name, role(role))).orElse(name);
    } else if (piece instanceof Piece.Nobody nobody) {
      return nobody.role().map(role -> say("records.find-no-role", role(role))).orElse("nobody");
    } else if (piece instanceof Piece.OfTeam of) {
      return world.crew().team(of.team()).map(Team::name).orElse("");
    } else if (piece instanceof Piece.AtPlace at) {
      return world.places().find(at.place()).map(Place::name).orElse("");
    } else if (piece instanceof Piece.Tagged tag) {
      return tag.tag();
    } else if (piece instanceof Piece.Contact contact) {
      return contact.text();
    }
    return piece instanceof Piece.When when ? said(when) : "overdue";
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
