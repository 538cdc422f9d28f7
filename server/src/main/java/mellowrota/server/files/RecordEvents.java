package mellowrota.server.files;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.entry.Uid;
import mellowrota.core.sight.Face;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.records.RecordView;

/** A record, as one person may see it, as events of a file: its visits, or its due time. */
public final class RecordEvents {

  /** A file is no calendar of the house; its events have identifiers of their own. */
  private static final CalendarId A_FILE = CalendarId.of(0);

  private RecordEvents() {}

  static List<IcalendarWriter.Written> of(RecordView view, String seed, Instant now) {
    List<IcalendarWriter.Written> found = new ArrayList<>();
    if (view.visits() != null) {
      for (RecordView.VisitView visit : view.visits()) {
        span(visit)
            .ifPresent(
                times ->
                    found.add(
                        event(view, visit.no(), Family.WORK, times, visit.tentative(), seed, now)));
      }
    }
    if (found.isEmpty() && view.due() != null) {
      found.add(event(view, 1, Family.DUE, due(view.due()), false, seed, now));
    }
    return found;
  }

  private static Optional<EntryTimes> span(RecordView.VisitView visit) {
    if (visit.start() != null) {
      ZoneId zone = ZoneId.of(visit.zone());
      return Optional.of(
          new EntryTimes.Timed(
              LocalTimes.resolve(LocalDateTime.parse(visit.start()), zone),
              LocalTimes.resolve(LocalDateTime.parse(visit.end()), zone)));
    }
    return Optional.ofNullable(visit.first())
        .map(
            first ->
                new EntryTimes.AllDay(
                    DaySpan.through(LocalDate.parse(first), LocalDate.parse(visit.last()))));
  }

  /** A due time as it stands in a file. */
  public static EntryTimes due(RecordView.DueView due) {
    if (due.date() != null) {
      return new EntryTimes.AllDay(DaySpan.ofDay(LocalDate.parse(due.date())));
    }
    var at = LocalTimes.resolve(LocalDateTime.parse(due.at()), ZoneId.of(due.zone()));
    return new EntryTimes.Timed(at.minus(EntryTimes.DUE_MARK), at);
  }

  private static IcalendarWriter.Written event(
      RecordView view,
      int visit,
      Family family,
      EntryTimes times,
      boolean tentative,
      String seed,
      Instant now) {
    String ref = view.ref() == null ? "" : view.ref() + " ";
    String text =
        view.details().stream()
            .filter(d -> d.value() != null && !d.value().isEmpty())
            .map(d -> d.label() + ": " + d.value())
            .collect(Collectors.joining("\n"));
    Face face =
        new Face(
            (ref + (view.title() == null ? "Work" : view.title())).strip(),
            view.place() == null ? "" : view.place().name(),
            text,
            times,
            new Entry.Marks(
                view.state() == State.DONE, tentative, family == Family.WORK, false, false),
            List.of());
    return new IcalendarWriter.Written(uid(view.id(), visit, family, seed), 0, now, face);
  }

  /** By what a visit, or a due time, is known in every file. */
  public static String uid(long record, int visit, Family family, String seed) {
    return Uid.of(seed, new EntryKey(RecordId.of(record), visit, A_FILE, family)).value();
  }
}
