package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.find.Piece;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Lists records in keyset pages. A cursor is made of the last record that was shown (SIGHT 9). */
@Service
@RequiredArgsConstructor
public class RecordList {

  private static final int AT_ONCE = 200;
  private static final int LONGEST_LINE = 200;

  /** More of what somebody may open are not gathered first; nor are more counted. */
  private static final int MOST_FEW = 50_000;

  /** More are not sorted by the value of a detail. */
  private static final int MOST_BY_DETAIL = 20_000;

  private static final String COUNT = "select count(*) from (select 1 from (%s) n limit %d) n";
  private static final String GATHERED = " and r.id = any(array(%s))";

  private final OpenableRecords opens;
  private final Finding finding;
  private final Clock clock;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;

  /** What is asked for. */
  public record Wanted(
      String find,
      Optional<Kind> kind,
      Set<State> states,
      OptionalLong person,
      OptionalLong place,
      OptionalLong team,
      RecordOrder sort,
      Optional<DetailKey> by,
      Optional<String> cursor,
      int limit) {

    /** From what stands in an address; refuses what is none of these. */
    public static Wanted of(
        String find, String kind, String state, Long person, Long place, Long team, String sort) {
      requireLine(find);
      Set<State> states = EnumSet.noneOf(State.class);
      for (String name : state.split(",")) {
        if (!name.isBlank()) {
          states.add(choice("state", name.strip(), State.class));
        }
      }
      String[] order = sort.split(":", 2);
      RecordOrder chosen = choice("sort", order[0], RecordOrder.class);
      if (chosen.isByDetail() != (order.length == 2)) {
        throw Problem.badRequest(say("records.sort-by-detail-names-it"));
      }
      return new Wanted(
          find,
          Optional.ofNullable(kind).map(k -> choice("kind", k, Kind.class)),
          states,
          number(person),
          number(place),
          number(team),
          chosen,
          order.length == 2 ? Optional.of(new DetailKey(order[1])) : Optional.empty(),
          Optional.empty(),
          50);
    }

    /** The same from a cursor on, so many at once. */
    public Wanted from(Optional<String> next, int most) {
      return new Wanted(find, kind, states, person, place, team, sort, by, next, most);
    }

    /** What is asked for beside the line. */
    List<Piece> pieces() {
      List<Piece> found = new ArrayList<>();
      kind.map(Piece.KindIs::new).ifPresent(found::add);
      states.stream().map(Piece.StateIs::new).forEach(found::add);
      person.stream()
          .mapToObj(one -> new Piece.On(PersonId.of(one), Optional.empty()))
          .forEach(found::add);
      place.stream().mapToObj(one -> new Piece.AtPlace(PlaceId.of(one))).forEach(found::add);
      team.stream().mapToObj(one -> new Piece.OfTeam(TeamId.of(one))).forEach(found::add);
      return found;
    }

    private static OptionalLong number(Long value) {
      return value == null ? OptionalLong.empty() : OptionalLong.of(value);
    }

    private static <E extends Enum<E>> E choice(String name, String text, Class<E> type) {
      List<String> names = new ArrayList<>();
      for (E one : type.getEnumConstants()) {
        if (one.name().equals(text.toUpperCase(Locale.ROOT))) {
          return one;
        }
        names.add(one.name());
      }
      throw Problem.badRequest(say("records.must-be-one-of", name, String.join(", ", names)));
    }
  }

  /** Goes on where this may be a line that finds. */
  static void requireLine(String find) {
    if (find.length() > LONGEST_LINE) {
      throw Problem.badRequest(say("records.find-may-have-at"));
    }
    if (find.chars().anyMatch(Character::isISOControl)) {
      throw Problem.badRequest(say("records.find-contains-a-character"));
    }
  }

  /**
   * A page.
   *
   * @param next the cursor of the next page; absent on the last
   */
  public record Page(List<RecordView> items, @Nullable String next) {}

  /** The records that match, as this person may see them. */
  public Page page(World world, Person asker, Wanted wanted) {
    RecordOrder.Spot after =
        wanted.cursor().map(RecordOrder.Spot::of).orElse(wanted.sort().begin());
    List<RecordOrder.Spot> spots = spots(world, asker, wanted, after, wanted.limit() + 1);
    List<RecordOrder.Spot> shown = spots.subList(0, Math.min(spots.size(), wanted.limit()));
    return new Page(
        views(world, asker, shown),
        spots.size() > shown.size() ? shown.get(shown.size() - 1).cursor() : null);
  }

  /** All that match, whatever their page; empty where they are more than that many. */
  public Optional<List<RecordView>> all(World world, Person asker, Wanted wanted, int most) {
    List<RecordOrder.Spot> spots = spots(world, asker, wanted, wanted.sort().begin(), most + 1);
    return spots.size() > most ? Optional.empty() : Optional.of(views(world, asker, spots));
  }

  private List<RecordView> views(World world, Person asker, List<RecordOrder.Spot> spots) {
    List<RecordView> found = new ArrayList<>(spots.size());
    for (int from = 0; from < spots.size(); from += AT_ONCE) {
      List<RecordId> ids =
          spots.subList(from, Math.min(spots.size(), from + AT_ONCE)).stream()
              .map(spot -> RecordId.of(spot.id()))
              .toList();
      access.standings(world, asker, store.load(ids, false)).stream()
          .flatMap(standing -> views.view(standing).stream())
          .forEach(found::add);
    }
    return found;
  }

  /** In their order, so many after one. */
  private List<RecordOrder.Spot> spots(
      World world, Person asker, Wanted wanted, RecordOrder.Spot after, int most) {
    RecordOrder order = wanted.sort();
    if (order.isByChange() && !OpenableRecords.opensAll(asker)) {
      throw Problem.forbidden(say("records.order-is-for-the-office"));
    }
    Asked asked = new Asked(world, asker, wanted);
    if (order.isByDetail()) {
      return byDetail(asked, wanted, after, most);
    }
    List<RecordOrder.Spot> found =
        after.isRest()
            ? new ArrayList<>()
            : asked.ask(order.first(asked.from, asked.where), after, most);
    if (order.detail().isPresent() && found.size() < most) {
      boolean isUsual = OpenableRecords.seesUsually(world, asker, order.detail().get());
      found.addAll(
          asked.ask(
              order.rest(asked.from, asked.where, isUsual),
              after.isRest() ? after : order.beginRest(),
              most - found.size()));
    }
    return found;
  }

  /** No index answers that, so it is asked of few enough alone. */
  private List<RecordOrder.Spot> byDetail(
      Asked asked, Wanted wanted, RecordOrder.Spot after, int most) {
    RecordOrder order = wanted.sort();
    DetailDefinition detail =
        wanted
            .by()
            .flatMap(asked.world.details()::find)
            .filter(DetailDefinition::typed)
            .orElseThrow(() -> Problem.badRequest(say("records.sort-names-no-detail")));
    asked.values.put("by", detail.key().name());
    String all = "select r.id from " + asked.from + " where " + asked.where;
    long count =
        opens
            .query(Long.class, COUNT.formatted(all, MOST_BY_DETAIL + 1), asked.values)
            .getSingleResult();
    if (count > MOST_BY_DETAIL) {
      throw Problem.fault("sort", say("records.too-many-to-sort-by", MOST_BY_DETAIL));
    }
    String value = FoundBy.sortedBy(detail.sort());
    List<RecordOrder.Spot> found =
        after.isRest()
            ? new ArrayList<>()
            : asked.ask(order.byDetail(value, asked.from, asked.where, false), after, most);
    if (found.size() < most) {
      found.addAll(
          asked.ask(
              order.byDetail(value, asked.from, asked.where, true),
              after.isRest() ? after : order.beginRest(),
              most - found.size()));
    }
    return found;
  }

  /** How many there are of each sort among those that match. */
  Facets facets(World world, Person asker, Wanted wanted) {
    Asked asked = new Asked(world, asker, wanted);
    asked.values.put("most", Facets.MOST + 1);
    String question = Facets.QUESTION.formatted(asked.from, asked.where);
    return Facets.of(world, opens.query(Facets.Row.class, question, asked.values).getResultList());
  }

  /** What one asker asks for in one order. */
  private final class Asked {
    private final Map<String, Object> values;
    private final World world;
    private final RecordOrder order;
    private final String from = OpenableRecords.RECORDS + OpenableRecords.SEEN;
    private final String where;

    Asked(World world, Person asker, Wanted wanted) {
      this.world = world;
      order = wanted.sort();
      FoundBy by =
          new FoundBy(
              finding.read(world, asker, wanted.find()),
              wanted.pieces(),
              world.house().zone(),
              clock.instant());
      values = OpenableRecords.values(world, asker);
      values.putAll(by.values());
      opens.planAnew();
      where =
          OpenableRecords.opensAll(asker)
              ? by.condition() + among(by.few())
              : by.condition()
                  + among(List.of(new FoundBy.Few(OpenableRecords.AMONG, MOST_FEW)))
                  + " and "
                  + OpenableRecords.MAY_OPEN;
    }

    /**
     * Begins with the few that can be, if they are few. Whoever may not open all begins with what
     * they may: how often others hold a word is not for them, nor how long it takes to look.
     */
    private String among(List<FoundBy.Few> all) {
      FoundBy.Few few = null;
      long fewest = MOST_FEW + 1;
      for (FoundBy.Few one : all) {
        long most = Math.min(fewest, one.most() + 1L);
        long count =
            opens.query(Long.class, COUNT.formatted(one.numbers(), most), values).getSingleResult();
        if (count < most || few == null && one.most() == FoundBy.Few.ANY_NUMBER) {
          few = one;
          fewest = count;
        }
      }
      return few == null ? "" : GATHERED.formatted(few.numbers());
    }

    List<RecordOrder.Spot> ask(String question, RecordOrder.Spot after, int most) {
      values.put("at", after.at());
      values.put("key", after.key());
      values.put("id", after.id());
      values.put("most", most);
      if (order.isByPlace()) {
        values.put("spots", order.from(world.placeList(), after.key()));
      }
      return new ArrayList<>(opens.query(RecordOrder.Spot.class, question, values).getResultList());
    }
  }
}
