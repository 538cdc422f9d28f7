package mellowrota.server.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.server.records.RecordView;
import mellowrota.server.sight.World;

/** A record as rows of a table, one for each visit. */
final class RecordColumns {

  private static final List<String> FIRST =
      List.of(
          "ref",
          "kind",
          "state",
          "title",
          "place",
          "team",
          "start",
          "end",
          "zone",
          "due",
          "lead",
          "others",
          "tags",
          "estimate",
          "people wanted",
          "skills wanted");

  private RecordColumns() {}

  /** The typed details of the house, each a column. */
  static List<String> details(World world) {
    return world.details().all().stream()
        .filter(DetailDefinition::isWritten)
        .map(one -> one.key().name())
        .toList();
  }

  static List<String> header(List<String> details) {
    List<String> all = new ArrayList<>(FIRST);
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
      row.add(text(view.ref()));
      row.add(view.kind().name().toLowerCase(java.util.Locale.ROOT));
      row.add(view.state() == null ? "" : view.state().name().toLowerCase(java.util.Locale.ROOT));
      row.add(text(view.title()));
      row.add(view.place() == null ? "" : view.place().name());
      row.add(view.team() == null ? "" : view.team().name());
      row.add(visit == null ? "" : first(visit.start(), visit.first()));
      row.add(visit == null ? "" : first(visit.end(), visit.last()));
      row.add(visit == null ? "" : text(visit.zone()));
      row.add(view.due() == null ? "" : first(view.due().at(), view.due().date()));
      row.add(people(view, visit, true));
      row.add(people(view, visit, false));
      row.add(view.tags() == null ? "" : String.join(", ", view.tags()));
      row.add(view.estimateMinutes() == null ? "" : hours(view.estimateMinutes()));
      row.add(view.wants() == null ? "" : Integer.toString(view.wants().people()));
      row.add(view.wants() == null ? "" : String.join(", ", view.wants().skills()));
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

  private static String hours(long minutes) {
    return "%d:%02d".formatted(minutes / 60, minutes % 60);
  }

  private static String text(String value) {
    return Optional.ofNullable(value).orElse("");
  }

  private static String first(String one, String other) {
    return one == null ? text(other) : one;
  }
}
