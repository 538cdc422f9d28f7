package mellowrota.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import mellowrota.core.find.Names.Named;
import mellowrota.core.find.Names.Sort;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What lines are read as. {@code -Dlines=1000000} reads more random ones. */
public class FindLineTest {

  private static final int LINES = Integer.getInteger("lines", 20_000);

  /** A Wednesday. */
  private static final Today TODAY =
      new Today(LocalDateTime.parse("2026-11-25T09:00"), DayOfWeek.MONDAY);

  private static final Names NAMES =
      new Names(
          List.of(
              person(1, "Ines Okafor"),
              person(2, "Tam Birtles"),
              person(3, "Marguerite Pell"),
              person(4, "Pell Ombury"),
              person(5, "Osier Marina"),
              new Named(
                  Sort.TEAM, "Thornmere crew", Optional.empty(), new Piece.OfTeam(TeamId.of(6))),
              place(7, "Lock 7, Thornmere Flight", "L7"),
              place(8, "Lock 2, Thornmere Flight", "L2"),
              place(9, "Osier Weir", "OW"),
              place(10, "Twice", "T1"),
              new Named(Sort.TEAM, "Twice", Optional.empty(), new Piece.OfTeam(TeamId.of(11)))),
          Map.of("Lead", RoleId.LEAD, "Informed", RoleId.INFORMED),
          List.of(
              detail("price", "Agreed price", DetailSort.MONEY, "EUR"),
              detail("count", "Count", DetailSort.NUMBER, ""),
              detail("survey", "Survey", DetailSort.DATE, ""),
              detail("gate code", "Gate code", DetailSort.TEXT, "")));

  private static DetailDefinition detail(String key, String label, DetailSort sort, String unit) {
    return new DetailDefinition(
        new DetailKey(key),
        label,
        Set.of(Kind.values()),
        ForSet.EVERYONE,
        true,
        sort,
        List.of(),
        Set.of(),
        unit);
  }

  private static Named person(long id, String name) {
    return new Named(
        Sort.PERSON, name, Optional.empty(), new Piece.On(PersonId.of(id), Optional.empty()));
  }

  private static Named place(long id, String name, String code) {
    return new Named(Sort.PLACE, name, Optional.of(code), new Piece.AtPlace(PlaceId.of(id)));
  }

  @DataProvider
  public Object[][] lines() {
    return new Object[][] {
      {"", ""},
      {"stuck paddle", "'stuck' 'paddle'"},
      {"\"Ines Okafor\" gate", "'Ines Okafor' 'gate'"},
      {"\"open quote", "'open quote'"},
      {"T-318", "ref T-318"},
      {"t-318, J-4", "ref T-318, ref J-4"},
      {"tickets overdue", "TICKET overdue"},
      {"job confirmed", "JOB CONFIRMED"},
      {"drafts", "DRAFT"},
      {"Ines", "on 1"},
      {"okafor as Lead", "on 1 as 0"},
      {"Lead Ines Okafor", "on 1 as 0"},
      {"lead tam", "on 2 as 0"},
      {"lead of", "'lead' 'of'"},
      {"Tam as boss", "on 2 'as' 'boss'"},
      {"nobody", "nobody"},
      {"nobody as Lead", "nobody as 0"},
      {"no lead", "nobody as 0"},
      {"no show", "'no' 'show'"},
      {"Pell", "'Pell' ?Marguerite Pell|Pell Ombury"},
      {"Marguerite Pell", "on 3"},
      {"Lock 7", "at 7"},
      {"l7 Thornmere crew", "at 7 team 6"},
      {"Lock 7, Thornmere Flight", "at 7"},
      {"lock", "'lock' ?Lock 7, Thornmere Flight|Lock 2, Thornmere Flight"},
      {"Osier", "'Osier' ?Osier Marina|Osier Weir"},
      {"osier weir", "at 9"},
      {"weir", "'weir'"},
      {"Twice", "'Twice' ?Twice|Twice"},
      {"team Twice", "team 11"},
      {"place twice", "at 10"},
      {"team nowhere", "'team' 'nowhere'"},
      {"Inez", "'inez' ~Ines Okafor"},
      {"Birtels as Lead", "'birtels' ~Tam Birtles 'as' 'Lead'"},
      {"gate", "'gate'"},
      {"#closure", "tag closure"},
      {"tag \"towpath shut\"", "tag towpath shut"},
      {"contact Varga", "contact Varga"},
      {"contact", "'contact'"},
      {"today", "ANY 2026-11-25T00:00..2026-11-26T00:00"},
      {"tomorrow 9:30", "ANY 2026-11-26T09:30..2026-11-26T09:31"},
      {"yesterday", "ANY 2026-11-24T00:00..2026-11-25T00:00"},
      {"last month", "ANY 2026-10-01T00:00..2026-11-01T00:00"},
      {"this week", "ANY 2026-11-23T00:00..2026-11-30T00:00"},
      {"next week", "ANY 2026-11-30T00:00..2026-12-07T00:00"},
      {"next year", "ANY 2027-01-01T00:00..2028-01-01T00:00"},
      {"Wed", "ANY 2026-11-25T00:00..2026-11-26T00:00"},
      {"Fri 13:00–18:00", "ANY 2026-11-27T13:00..2026-11-27T18:00"},
      {"fri 22:00-6:00", "ANY 2026-11-27T22:00..2026-11-28T06:00"},
      {"next Fri", "ANY 2026-12-04T00:00..2026-12-05T00:00"},
      {"last tuesday", "ANY 2026-11-17T00:00..2026-11-18T00:00"},
      {"Fri 25:00", "ANY 2026-11-27T00:00..2026-11-28T00:00 '25:00'"},
      {"2 Dec", "ANY 2026-12-02T00:00..2026-12-03T00:00"},
      {"Wed 2 Dec 2027", "ANY 2027-12-02T00:00..2027-12-03T00:00"},
      {"3 January", "ANY 2027-01-03T00:00..2027-01-04T00:00"},
      {"29 Feb", "'29' ANY 2027-02-01T00:00..2027-03-01T00:00"},
      {"29 Feb 2028", "ANY 2028-02-29T00:00..2028-03-01T00:00"},
      {"23–27 Nov", "ANY 2026-11-23T00:00..2026-11-28T00:00"},
      {"28 Nov – 2 Dec", "ANY 2026-11-28T00:00..2026-12-03T00:00"},
      {"27-23 Nov", "'27-23' ANY 2026-11-01T00:00..2026-12-01T00:00"},
      {"Dec 2026", "ANY 2026-12-01T00:00..2027-01-01T00:00"},
      {"may 2027", "ANY 2027-05-01T00:00..2027-06-01T00:00"},
      {"may", "'may'"},
      {"2026-12-02", "ANY 2026-12-02T00:00..2026-12-03T00:00"},
      {"2026-13-02", "'2026-13-02'"},
      {"due before 2 Dec", "DUE ..2026-12-02T00:00"},
      {"due by Fri 13:00", "DUE ..2026-11-27T13:01"},
      {"due Fri", "DUE 2026-11-27T00:00..2026-11-28T00:00"},
      {"due", "'due'"},
      {"due soon", "'due' 'soon'"},
      {"begins after 2 Dec", "BEGINS 2026-12-03T00:00.."},
      {"ends since Nov", "ENDS 2026-11-01T00:00.."},
      {"before next week", "ANY ..2026-11-30T00:00"},
      {"from 23 Nov to Fri", "ANY 2026-11-23T00:00..2026-11-28T00:00"},
      {"between Mon and Tue", "ANY 2026-11-30T00:00..2026-12-02T00:00"},
      {"between Mon", "'between' ANY 2026-11-30T00:00..2026-12-01T00:00"},
      {"count over 20", "count OVER 20"},
      {"count under 2.50 paddle", "count UNDER 2.5 'paddle'"},
      {"agreed price above 100", "price OVER 100.00"},
      {"price below EUR100", "price UNDER 100.00"},
      {"count over many", "'count' 'over' 'many'"},
      {"count over", "'count' 'over'"},
      {"gate code is 4711", "gate code IS 4711"},
      {"gate code over 4711", "'gate' 'code' 'over' '4711'"},
      {"survey before 2 Dec", "survey UNDER 2026-12-02"},
      {"survey after next week", "survey OVER 2026-12-06"},
      {"survey on Fri", "survey IS 2026-11-27"},
      {"survey is next week", "'survey' 'is' ANY 2026-11-30T00:00..2026-12-07T00:00"},
      {"with gate code", "with gate code"},
      {"tickets without price", "TICKET without price"},
      {"with care", "'with' 'care'"},
      {"priced", "with price"},
      {"count", "'count'"},
      {"from Mon", "ANY 2026-11-30T00:00.."},
      {
        "tickets Ines due before 2 Dec at Lock 7 paddle",
        "TICKET on 1 DUE ..2026-12-02T00:00 'at' at 7 'paddle'"
      },
    };
  }

  @Test(dataProvider = "lines")
  public void isReadAs(String line, String expected) {
    assertThat(said(FindLine.read(line, NAMES, TODAY)))
        .isEqualTo(expected.replace(", ref", " ref"));
  }

  private static String said(Reading reading) {
    String pieces =
        reading.pieces().stream().map(one -> said(one.piece())).collect(Collectors.joining(" "));
    return reading.offers().stream()
        .map(
            one -> one.names().stream().map(Named::name).collect(Collectors.joining("|", " ?", "")))
        .collect(Collectors.joining("", pieces, ""));
  }

  private static String said(Piece piece) {
    if (piece instanceof Piece.Words words) {
      return "'" + words.text() + "'";
    } else if (piece instanceof Piece.Near near) {
      return "'" + near.text() + "' ~" + near.meant().name();
    } else if (piece instanceof Piece.Ref ref) {
      return "ref " + ref.ref();
    } else if (piece instanceof Piece.KindIs kind) {
      return kind.kind().name();
    } else if (piece instanceof Piece.StateIs state) {
      return state.state().name();
    } else if (piece instanceof Piece.On on) {
      return "on " + on.person().value() + role(on.role());
    } else if (piece instanceof Piece.Nobody nobody) {
      return "nobody" + role(nobody.role());
    } else if (piece instanceof Piece.OfTeam team) {
      return "team " + team.team().value();
    } else if (piece instanceof Piece.AtPlace place) {
      return "at " + place.place().value();
    } else if (piece instanceof Piece.Tagged tag) {
      return "tag " + tag.tag();
    } else if (piece instanceof Piece.Contact contact) {
      return "contact " + contact.text();
    } else if (piece instanceof Piece.When when) {
      return when.edge()
          + " "
          + when.from().map(String::valueOf).orElse("")
          + ".."
          + when.until().map(String::valueOf).orElse("");
    } else if (piece instanceof Piece.Valued valued) {
      String names =
          valued.details().stream().map(one -> one.key().name()).collect(Collectors.joining("|"));
      return valued
          .test()
          .map(test -> names + " " + test + " " + valued.than())
          .orElse((valued.isSo() ? "with " : "without ") + names);
    }
    return "overdue";
  }

  private static String role(Optional<RoleId> role) {
    return role.map(one -> " as " + one.value()).orElse("");
  }

  /** Whatever is typed, every word of it stands in one piece, in the order of the line. */
  @Test
  public void everyWordStandsInOnePiece() {
    List<String> words =
        List.of(
            "due", "before", "Fri", "2", "Dec", "–", "\"", "Ines", "as", "Lead", "#", "tag", ",",
            "Lock", "7", "next", "week", "no", "nobody", "place", "Twice", "23–27", "Pell", "x",
            "count", "over", "with", "without", "survey", "is", "gate", "code");
    for (long seed = 0; seed < LINES; seed++) {
      SplittableRandom random = new SplittableRandom(seed);
      StringBuilder line = new StringBuilder();
      for (int left = random.nextInt(9); left > 0; left--) {
        line.append(words.get(random.nextInt(words.size())));
        line.append(random.nextInt(6) == 0 ? "" : " ");
      }
      Reading reading = FindLine.read(line.toString(), NAMES, TODAY);
      int at = 0;
      for (Reading.Understood one : reading.pieces()) {
        String between = line.substring(at, one.from());
        assertThat(between.replaceAll("[\\s,]|\"\\s*\"?", ""))
            .as("seed %s: %s", seed, line)
            .isEmpty();
        assertThat(one.until()).isGreaterThan(one.from());
        at = one.until();
      }
      assertThat(line.substring(at).replaceAll("[\\s,]|\"\\s*\"?", ""))
          .as("seed %s", seed)
          .isEmpty();
    }
  }
}
