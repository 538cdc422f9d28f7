package mellowrota.core.find;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.find.Names.Named;
import mellowrota.core.find.Piece.Edge;
import mellowrota.core.find.Reading.Offer;
import mellowrota.core.find.Reading.Understood;
import mellowrota.core.people.RoleId;
import mellowrota.core.text.Near;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.core.work.ValueTest;

/** Reads a line that finds, from left to right, the longest that is understood first. */
public final class FindLine {

  private static final Pattern REF = Pattern.compile("[jtsd]-\\d+");

  /** So many words a name has at most. */
  private static final int LONGEST = 8;

  /** More names than these are not worth a choice. */
  private static final int MOST_OFFERED = 6;

  /** Shorter words are near to too much. */
  private static final int LEAST_NEAR = 4;

  private static final Map<String, Edge> EDGES =
      Map.of(
          "due", Edge.DUE,
          "begins", Edge.BEGINS,
          "beginning", Edge.BEGINS,
          "starts", Edge.BEGINS,
          "starting", Edge.BEGINS,
          "ends", Edge.ENDS,
          "ending", Edge.ENDS);

  private static final Map<String, Names.Sort> SORTS =
      Map.of(
          "person", Names.Sort.PERSON,
          "team", Names.Sort.TEAM,
          "place", Names.Sort.PLACE,
          "region", Names.Sort.REGION,
          "chain", Names.Sort.CHAIN);

  private static final Map<String, ValueTest> TESTS =
      Map.of(
          "over", ValueTest.OVER,
          "above", ValueTest.OVER,
          "after", ValueTest.OVER,
          "under", ValueTest.UNDER,
          "below", ValueTest.UNDER,
          "before", ValueTest.UNDER,
          "is", ValueTest.IS,
          "on", ValueTest.IS);

  /** Of the line's own words none is a name that was misspelt. */
  private static final Set<String> OWN =
      Stream.of(
              EDGES.keySet(),
              SORTS.keySet(),
              Set.of("contact", "tag", "before", "after", "since", "until", "from", "between"),
              Set.of("with", "without", "priced"))
          .flatMap(Set::stream)
          .collect(Collectors.toUnmodifiableSet());

  private final Tokens tokens;
  private final Names names;
  private final Map<Named, String> plain = new IdentityHashMap<>();
  private final SaidTimes times;
  private final List<Understood> pieces = new ArrayList<>();
  private final List<Offer> offers = new ArrayList<>();
  private int next;

  private FindLine(String line, Names names, Today today) {
    tokens = new Tokens(line);
    this.names = names;
    names.all().forEach(one -> plain.put(one, plain(one.name())));
    times = new SaidTimes(tokens, today);
  }

  /** What was understood of it; every line is good. */
  public static Reading read(String line, Names names, Today today) {
    FindLine reader = new FindLine(line, names, today);
    while (reader.next < reader.tokens.size()) {
      reader.piece();
    }
    return new Reading(reader.pieces, reader.offers);
  }

  private void piece() {
    boolean understood =
        !tokens.at(next).quoted()
            && (when()
                || valued()
                || marked()
                || word()
                || exact(next, one -> true)
                || nobody()
                || roleFirst()
                || partOfName()
                || nearName());
    if (!understood) {
      take(next + 1, words());
    }
  }

  private Piece words() {
    return new Piece.Words(tokens.at(next).text(), tokens.at(next).quoted());
  }

  private boolean take(int until, Piece piece) {
    pieces.add(new Understood(tokens.at(next).from(), tokens.at(until - 1).until(), piece));
    next = until;
    return true;
  }

  // ---- When ------------------------------------------------------------------------------------

  private boolean when() {
    Edge edge = EDGES.getOrDefault(tokens.plain(next), Edge.ANY);
    int from = edge == Edge.ANY ? next : next + 1;
    String side = tokens.plain(from);
    Optional<SaidTimes.Said> said = times.at(from);
    if (said.isPresent()) {
      return within(edge, said.get(), said.get());
    }
    Optional<SaidTimes.Said> behind = times.at(from + 1);
    if (behind.isEmpty()) {
      return false;
    }
    SaidTimes.Said it = behind.get();
    return switch (side) {
      case "in", "on", "at", "within" -> within(edge, it, it);
      case "before" -> open(edge, it.next(), Optional.empty(), Optional.of(it.from()));
      case "by", "until" -> open(edge, it.next(), Optional.empty(), Optional.of(it.until()));
      case "after" -> open(edge, it.next(), Optional.of(it.until()), Optional.empty());
      case "since" -> open(edge, it.next(), Optional.of(it.from()), Optional.empty());
      case "from", "between" -> {
        Optional<SaidTimes.Said> last =
            List.of("to", "until", "and").contains(tokens.plain(it.next()))
                ? times.at(it.next() + 1)
                : Optional.empty();
        yield last.filter(to -> to.until().isAfter(it.from())).isPresent()
            ? within(edge, it, last.get())
            : side.equals("from")
                && open(edge, it.next(), Optional.of(it.from()), Optional.empty());
      }
      default -> false;
    };
  }

  private boolean within(Edge edge, SaidTimes.Said from, SaidTimes.Said until) {
    return open(edge, until.next(), Optional.of(from.from()), Optional.of(until.until()));
  }

  private boolean open(
      Edge edge, int until, Optional<LocalDateTime> from, Optional<LocalDateTime> to) {
    return take(until, new Piece.When(edge, from, to));
  }

  // ---- Words with a meaning --------------------------------------------------------------------

  /** "#tag", "tag …", "contact …", and a name after what it is. */
  private boolean marked() {
    String word = tokens.plain(next);
    if (word.startsWith("#") && word.length() > 1) {
      return take(next + 1, new Piece.Tagged(tokens.at(next).text().substring(1)));
    }
    if (next + 1 == tokens.size()) {
      return false;
    }
    String text = tokens.at(next + 1).text();
    if (word.equals("tag")) {
      return take(next + 2, new Piece.Tagged(text));
    }
    if (word.equals("contact")) {
      return take(next + 2, new Piece.Contact(text));
    }
    Names.Sort sort = SORTS.get(word);
    return sort != null && exact(next + 1, one -> one.sort() == sort);
  }

  // ---- Values of details -----------------------------------------------------------------------

  /** "count over 20", "survey before 2 Dec", "with quote", "without gate code", "priced". */
  private boolean valued() {
    String word = tokens.plain(next);
    if (word.equals("with") || word.equals("without")) {
      return detail(next + 1)
          .filter(found -> take(found.until(), any(List.of(found.detail()), word.equals("with"))))
          .isPresent();
    }
    if (word.equals("priced")) {
      List<DetailDefinition> amounts =
          names.details().stream().filter(one -> one.sort() == DetailSort.MONEY).toList();
      return !amounts.isEmpty() && take(next + 1, any(amounts, true));
    }
    return detail(next).filter(found -> compared(found.detail(), found.until())).isPresent();
  }

  private static Piece any(List<DetailDefinition> details, boolean isSo) {
    return new Piece.Valued(details, Optional.empty(), "", isSo);
  }

  private boolean compared(DetailDefinition detail, int at) {
    ValueTest test = TESTS.get(tokens.plain(at));
    if (test == null || !test.isFor(detail.sort()) || at + 1 >= tokens.size()) {
      return false;
    }
    if (detail.sort() == DetailSort.DATE) {
      Optional<SaidTimes.Said> said = times.at(at + 1);
      return said.isPresent() && day(detail, test, said.get());
    }
    Optional<String> than =
        detail.read(tokens.at(at + 1).text()).value().filter(value -> !value.isEmpty());
    return than.isPresent() && take(at + 2, valued(detail, test, than.get()));
  }

  /** After days is after their last one. */
  private boolean day(DetailDefinition detail, ValueTest test, SaidTimes.Said said) {
    LocalDate first = said.from().toLocalDate();
    LocalDate last = said.until().minusNanos(1).toLocalDate();
    boolean one = first.equals(last);
    return (one || test != ValueTest.IS)
        && take(
            said.next(), valued(detail, test, (test == ValueTest.OVER ? last : first).toString()));
  }

  private static Piece valued(DetailDefinition detail, ValueTest test, String than) {
    return new Piece.Valued(List.of(detail), Optional.of(test), than, true);
  }

  /** A detail that is named there, and where its name ends; the longest name first. */
  private record OfDetail(DetailDefinition detail, int until) {}

  private Optional<OfDetail> detail(int from) {
    for (int until = Math.min(tokens.size(), from + LONGEST); until > from; until--) {
      String said = tokens.plain(from, until);
      int end = until;
      Optional<OfDetail> found =
          names.details().stream()
              .filter(one -> plain(one.label()).equals(said) || one.key().name().equals(said))
              .findFirst()
              .map(one -> new OfDetail(one, end));
      if (found.isPresent() && !said.isEmpty()) {
        return found;
      }
    }
    return Optional.empty();
  }

  private boolean word() {
    String word = tokens.plain(next);
    if (word.equals("overdue")) {
      return take(next + 1, new Piece.Overdue());
    }
    for (Kind kind : Kind.values()) {
      String name = kind.name().toLowerCase(Locale.ROOT);
      if (word.equals(name) || word.equals(name + "s")) {
        return take(next + 1, new Piece.KindIs(kind));
      }
    }
    for (State state : State.values()) {
      String name = state.name().toLowerCase(Locale.ROOT);
      if (word.equals(name) || state == State.DRAFT && word.equals("drafts")) {
        return take(next + 1, new Piece.StateIs(state));
      }
    }
    return REF.matcher(word).matches()
        && take(next + 1, new Piece.Ref(tokens.at(next).text().toUpperCase(Locale.ROOT)));
  }

  private boolean nobody() {
    if (!tokens.plain(next).equals("nobody")) {
      return tokens.plain(next).equals("no")
          && role(next + 1)
              .filter(role -> take(next + 2, new Piece.Nobody(Optional.of(role))))
              .isPresent();
    }
    Optional<RoleId> role = asRole(next + 1);
    return take(role.isPresent() ? next + 3 : next + 1, new Piece.Nobody(role));
  }

  private Optional<RoleId> role(int index) {
    String word = tokens.plain(index);
    return names.roles().entrySet().stream()
        .filter(one -> one.getKey().toLowerCase(Locale.ROOT).equals(word))
        .map(Map.Entry::getValue)
        .findFirst();
  }

  private Optional<RoleId> asRole(int index) {
    return tokens.plain(index).equals("as") ? role(index + 1) : Optional.empty();
  }

  // ---- Names -----------------------------------------------------------------------------------

  /** A whole name or code, the longest first. */
  private boolean exact(int from, Predicate<Named> wanted) {
    for (int until = Math.min(tokens.size(), from + LONGEST); until > from; until--) {
      String said = tokens.plain(from, until);
      List<Named> found =
          matching(
              one ->
                  wanted.test(one)
                      && (plain.get(one).equals(said)
                          || one.code().map(FindLine::plain).filter(said::equals).isPresent()));
      if (found.size() == 1) {
        return take(until, found.get(0));
      }
      if (found.size() > 1) {
        return offer(until, found);
      }
    }
    return false;
  }

  /** "Lead Ines". */
  private boolean roleFirst() {
    Optional<RoleId> role = role(next);
    if (role.isEmpty() || next + 1 == tokens.size()) {
      return false;
    }
    for (int until = Math.min(tokens.size(), next + LONGEST); until > next + 1; until--) {
      List<Named> found = people(tokens.plain(next + 1, until));
      if (found.size() == 1 && found.get(0).piece() instanceof Piece.On on) {
        return take(until, new Piece.On(on.person(), role));
      }
    }
    return false;
  }

  /** People who are called so, in whole or by one of their names. */
  private List<Named> people(String said) {
    return matching(
        one ->
            one.sort() == Names.Sort.PERSON
                && !said.isEmpty()
                && (" " + plain.get(one) + " ").contains(" " + said + " "));
  }

  /**
   * A part of a name: one of a person's names, or the first words of another. One word of what is
   * no person's may be meant as it stands, so that it is offered alone.
   */
  private boolean partOfName() {
    for (int until = Math.min(tokens.size(), next + LONGEST); until > next; until--) {
      String said = tokens.plain(next, until);
      if (said.isEmpty()) {
        continue;
      }
      List<Named> found = new ArrayList<>(people(said));
      found.addAll(
          matching(
              one -> one.sort() != Names.Sort.PERSON && plain.get(one).startsWith(said + " ")));
      boolean one = until == next + 1 && found.stream().noneMatch(FindLine::isPerson);
      if (found.size() == 1 && !one) {
        return take(until, found.get(0));
      }
      if (!found.isEmpty() && found.size() <= MOST_OFFERED) {
        return offer(until, found);
      }
    }
    return false;
  }

  /** A word that is near to one name, and begins like it; it may be meant as it stands too. */
  private boolean nearName() {
    for (int until = Math.min(tokens.size(), next + 3); until > next; until--) {
      String said = tokens.plain(next, until);
      if (said.length() < LEAST_NEAR || OWN.contains(said)) {
        continue;
      }
      Map<String, List<Named>> known = new LinkedHashMap<>();
      for (Named one : names.all()) {
        Stream.concat(
                Stream.of(plain.get(one)),
                isPerson(one) ? Stream.of(plain.get(one).split(" ")) : Stream.empty())
            .distinct()
            .filter(name -> name.charAt(0) == said.charAt(0))
            .forEach(name -> known.computeIfAbsent(name, key -> new ArrayList<>()).add(one));
      }
      List<Named> found =
          Near.all(said, known.keySet()).stream()
              .map(known::get)
              .flatMap(List::stream)
              .distinct()
              .toList();
      if (found.size() == 1) {
        return take(until, new Piece.Near(said, found.get(0)));
      }
    }
    return false;
  }

  private boolean take(int until, Named one) {
    Optional<RoleId> role = one.piece() instanceof Piece.On ? asRole(until) : Optional.empty();
    return role.isPresent()
        ? take(until + 2, new Piece.On(((Piece.On) one.piece()).person(), role))
        : take(until, one.piece());
  }

  /** Takes the words as they stand and says what they may mean. */
  private boolean offer(int until, List<Named> found) {
    offers.add(new Offer(tokens.at(next).from(), tokens.at(until - 1).until(), found));
    while (next < until) {
      take(next + 1, words());
    }
    return true;
  }

  private List<Named> matching(Predicate<Named> wanted) {
    return names.all().stream().filter(wanted).toList();
  }

  private static boolean isPerson(Named one) {
    return one.sort() == Names.Sort.PERSON;
  }

  /** As a line would say it. */
  private static String plain(String name) {
    Tokens said = new Tokens(name.replace('"', ' '));
    return said.plain(0, said.size());
  }
}
