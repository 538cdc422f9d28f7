package mellowrota.server.records;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.sight.Face;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Due;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Renders a record for one person. */
@Component
@RequiredArgsConstructor
public class RecordViews {

  private final JsonMapper json;

  /** The record as this person may see it; empty where they may not open it. */
  public Optional<RecordView> view(RecordAccess.Standing standing) {
    if (!standing.opens()) {
      return Optional.empty();
    }
    WorkRecord record = standing.record();
    World world = standing.world();
    boolean times = standing.sees(DetailKey.TIMES);
    return Optional.of(
        new RecordView(
            record.id().value(),
            standing.sees(DetailKey.REF) ? record.ref() : null,
            record.kind(),
            times ? record.state() : null,
            times ? record.started() : null,
            times && record.cant() ? true : null,
            record.isPrivate(),
            times && record.free() ? true : null,
            standing.sees(DetailKey.TITLE) ? record.text(DetailKey.TITLE).orElse(null) : null,
            standing.sees(DetailKey.PLACE)
                ? record.place().flatMap(one -> place(world, one)).orElse(null)
                : null,
            standing.sees(DetailKey.PLACE) && !record.uses().isEmpty()
                ? record.uses().stream().flatMap(one -> place(world, one).stream()).toList()
                : null,
            standing.sees(DetailKey.TEAM) ? team(world, record) : null,
            times ? record.due().map(due -> due(due, world.house().zone())).orElse(null) : null,
            times ? dates(record, world.house().zone()) : null,
            times ? visits(standing) : null,
            standing.sees(DetailKey.PEOPLE) ? people(world, record, times) : null,
            standing.sees(DetailKey.TAGS) ? List.copyOf(new TreeSet<>(record.tags())) : null,
            number(standing, RecordField.HEAD_COUNT),
            standing.isOffice() && !record.wants().isNone()
                ? new RecordView.WantsView(record.wants().people(), record.wants().skills())
                : null,
            number(standing, RecordField.ESTIMATE),
            standing.isOffice() ? exceptions(world, record) : null,
            details(standing),
            Permits.mayChange(standing),
            StandsInside.of(standing)));
  }

  /** The tag of one asker's answer (RFC 9110 §8.8.3); it tells nothing of what they do not see. */
  public String etag(RecordView view) {
    return '"' + Face.digest(json.writeValueAsString(view)) + '"';
  }

  private static Long number(RecordAccess.Standing standing, RecordField field) {
    String text = standing.sees(field) ? field.print(standing.record()) : "";
    return text.isEmpty() ? null : Long.valueOf(text);
  }

  /** A place, for somebody who may see it. */
  public static Optional<RecordView.PlaceView> place(World world, PlaceId id) {
    return world.places().find(id).map(RecordView.PlaceView::of);
  }

  private static RecordView.NamedView team(World world, WorkRecord record) {
    return record
        .team()
        .flatMap(world.crew()::team)
        .map(team -> new RecordView.NamedView(team.id().value(), team.name()))
        .orElse(null);
  }

  /** A due time, for somebody who may see it. */
  public static RecordView.DueView due(Due due, ZoneId house) {
    Instant overdueFrom = due.overdueFrom(house);
    if (due instanceof Due.At at) {
      return new RecordView.DueView(
          at.time().toLocalDateTime().toString(),
          at.time().getZone().getId(),
          at.time().toInstant(),
          null,
          overdueFrom);
    }
    return new RecordView.DueView(null, null, null, ((Due.On) due).day().toString(), overdueFrom);
  }

  private static List<RecordView.NamedDateView> dates(WorkRecord record, ZoneId house) {
    return record.dates().stream()
        .map(date -> new RecordView.NamedDateView(date.name(), due(date.when(), house)))
        .toList();
  }

  private static List<RecordView.VisitView> visits(RecordAccess.Standing standing) {
    return standing.record().visits().stream().map(visit -> visit(standing, visit)).toList();
  }

  /** A visit, for somebody who may see its times; with the margins that it has with its Lead. */
  public static RecordView.VisitView visit(RecordAccess.Standing standing, Visit visit) {
    WorkRecord record = standing.record();
    Optional<Visit> said = Optional.of(visit).filter(it -> standing.sees(DetailKey.MARGINS));
    Optional<Margins> margins =
        said.filter(it -> it.when().isPresent())
            .map(it -> standing.world().margins().of(record, it, Optional.empty()))
            .filter(it -> !it.areNone());
    When.Timed timed = visit.when().orElse(null) instanceof When.Timed t ? t : null;
    When.AllDay allDay = visit.when().orElse(null) instanceof When.AllDay a ? a : null;
    return new RecordView.VisitView(
        visit.no(),
        timed == null ? null : timed.start().toLocalDateTime().toString(),
        timed == null ? null : timed.end().toLocalDateTime().toString(),
        timed == null ? null : timed.start().getZone().getId(),
        timed == null ? null : timed.start().toInstant(),
        timed == null ? null : timed.end().toInstant(),
        allDay == null ? null : allDay.days().first().toString(),
        allDay == null ? null : allDay.days().until().minusDays(1).toString(),
        said.flatMap(it -> it.margins().before()).map(Duration::toMinutes).orElse(null),
        said.flatMap(it -> it.margins().after()).map(Duration::toMinutes).orElse(null),
        margins.map(it -> it.before().toMinutes()).orElse(null),
        margins.map(it -> it.after().toMinutes()).orElse(null),
        record.tentative(visit.no()));
  }

  private static List<RecordView.ExceptionView> exceptions(World world, WorkRecord record) {
    return record.rulings().stream()
        .map(
            r -> {
              boolean named = r.sort() != Ruling.Sort.NOT_SENT;
              return new RecordView.ExceptionView(
                  r.sort(),
                  named ? r.calendar() : null,
                  named
                      ? world
                          .calendars()
                          .find(CalendarId.of(r.calendar()))
                          .map(Calendar::name)
                          .orElse(null)
                      : null,
                  r.visit().isPresent() ? r.visit().getAsInt() : null,
                  r.reason());
            })
        .toList();
  }

  private static List<RecordView.PersonOnIt> people(World world, WorkRecord record, boolean times) {
    List<RecordView.PersonOnIt> found = new ArrayList<>();
    for (Assignment a : record.assignments()) {
      Long person = a.holder() instanceof Holder.OnePerson one ? one.person().value() : null;
      Long team = a.holder() instanceof Holder.WholeTeam whole ? whole.team().value() : null;
      found.add(
          new RecordView.PersonOnIt(
              a.role().value(),
              roleName(world, a.role()),
              record.visits().size() > 1 ? a.visit() : null,
              person,
              team,
              holderName(world, a.holder()),
              times ? a.givenAt() : null));
    }
    found.sort(
        Comparator.comparingInt(RecordView.PersonOnIt::role)
            .thenComparing(RecordView.PersonOnIt::name)
            .thenComparingInt(p -> p.visit() == null ? 0 : p.visit()));
    return found;
  }

  public static String roleName(World world, RoleId id) {
    return world.role(id).map(Role::name).orElse("");
  }

  /** What somebody or a team is called. */
  public static String holderName(World world, Holder holder) {
    return holder instanceof Holder.OnePerson one
        ? world.crew().person(one.person()).map(Person::name).orElse("")
        : world.crew().team(((Holder.WholeTeam) holder).team()).map(Team::name).orElse("");
  }

  private static List<RecordView.DetailView> details(RecordAccess.Standing standing) {
    List<RecordView.DetailView> found = new ArrayList<>();
    WorkRecord record = standing.record();
    World world = standing.world();
    for (DetailDefinition definition : world.details().of(record.kind())) {
      DetailKey key = definition.key();
      if (!definition.isWritten() || !definition.appliesTo(record)) {
        continue;
      }
      boolean sees = standing.sees(key);
      if (sees || standing.isOffice() || standing.covers(key)) {
        found.add(
            new RecordView.DetailView(
                key.name(),
                definition.label(),
                sees ? record.text(key).orElse("") : null,
                ForWords.of(world.details().forWhom(record, key), world.roles())));
      }
    }
    return found;
  }
}
