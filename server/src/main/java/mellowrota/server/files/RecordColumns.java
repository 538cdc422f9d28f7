package mellowrota.server.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.server.records.RecordView;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;

/** A record as rows of a table, one for each visit. */
final class RecordColumns {

  /**
   * A column of the table.
   *
   * @param text of a record and one of its visits; null where there is nothing
   */
  private record Column(String name, BiFunction<RecordView, RecordView.VisitView, String> text) {

    static Column of(String name, Function<RecordView, String> text) {
      return new Column(name, (view, visit) -> text.apply(view));
    }

    /** Of a visit, where the record has one that the asker may see. */
    static Column ofVisit(String name, Function<RecordView.VisitView, String> text) {
      return new Column(name, (view, visit) -> visit == null ? null : text.apply(visit));
    }
  }

  private static final List<Column> WRITTEN =
      List.of(
          Column.of("ref", RecordView::ref),
          Column.of("kind", view -> lower(view.kind())),
          Column.of("state", view -> lower(view.state())),
          Column.of("title", RecordView::title),
          Column.of("place", view -> view.place() == null ? null : view.place().name()),
          Column.of("also uses", RecordColumns::uses),
          Column.of("team", view -> view.team() == null ? null : view.team().name()),
          Column.ofVisit("start", visit -> first(visit.start(), visit.first())),
          Column.ofVisit("end", visit -> first(visit.end(), visit.last())),
          Column.ofVisit("zone", RecordView.VisitView::zone),
          Column.of(
              "due", view -> view.due() == null ? null : first(view.due().at(), view.due().date())),
          new Column("lead", (view, visit) -> people(view, visit, true)),
          new Column("others", (view, visit) -> people(view, visit, false)),
          Column.of("tags", view -> view.tags() == null ? null : String.join(", ", view.tags())),
          Column.of(
              "people needed", view -> view.wants() == null ? null : "" + view.wants().people()),
          Column.of(
              "skills needed",
              view -> view.wants() == null ? null : String.join(", ", view.wants().skills())));

  private static @Nullable String uses(RecordView view) {
    return view.uses() == null
        ? null
        : view.uses().stream().map(RecordView.PlaceView::name).collect(Collectors.joining("; "));
  }

  private static final List<Column> COLUMNS =
      Stream.concat(WRITTEN.stream(), RecordField.NUMBERS.stream().map(RecordColumns::number))
          .toList();

  private RecordColumns() {}

  /** The typed details of the house, each a column. */
  static List<String> details(World world) {
    return world.details().all().stream()
        .filter(DetailDefinition::isWritten)
        .map(one -> one.key().name())
        .toList();
  }

  static List<String> header(List<String> details) {
    List<String> all = new ArrayList<>(COLUMNS.stream().map(Column::name).toList());
    all.addAll(details);
    return all;
  }

  static List<List<String>> rows(RecordView view, List<String> details) {
    List<List<String>> rows = new ArrayList<>();
    List<RecordView.VisitView> visits =
        view.visits() == null || view.visits().isEmpty()
            ? java.util.Collections.singletonList(null)
            : view.visits();
    for (RecordView.VisitView visit : visits) {
      List<String> row = new ArrayList<>();
      COLUMNS.forEach(column -> row.add(first(column.text().apply(view, visit), "")));
      for (String key : details) {
        row.add(
            view.details().stream()
                .filter(detail -> detail.key().equals(key) && detail.value() != null)
                .map(RecordView.DetailView::value)
                .findFirst()
                .orElse(""));
      }
      rows.add(row);
    }
    return rows;
  }

  private static String people(RecordView view, RecordView.VisitView visit, boolean lead) {
    if (view.people() == null) {
      return "";
    }
    return view.people().stream()
        .filter(p -> visit == null || p.visit() == null || p.visit() == visit.no())
        .filter(p -> (p.role() == RoleId.LEAD.value()) == lead)
        .map(RecordView.PersonOnIt::name)
        .distinct()
        .collect(Collectors.joining(", "));
  }

  private static Column number(RecordField field) {
    return Column.of(
        field.label().toLowerCase(Locale.ROOT),
        view -> {
          Long number = view.number(field);
          return number == null
              ? null
              : field.isMinutes()
                  ? "%d:%02d".formatted(number / 60, number % 60)
                  : number.toString();
        });
  }

  private static String lower(Enum<?> constant) {
    return constant == null ? null : constant.name().toLowerCase(Locale.ROOT);
  }

  private static String first(String one, String other) {
    return one == null ? other : one;
  }
}
