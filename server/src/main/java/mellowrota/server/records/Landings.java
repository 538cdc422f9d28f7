package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.Person;
import mellowrota.core.project.Projector;
import mellowrota.core.rule.Landing;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Reason;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.store.ReleaseStore;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Says where a record lands and why not elsewhere. */
@Service
@RequiredArgsConstructor
public class Landings {

  private final ReleaseStore releases;

  /**
   * For the office every calendar near the record; for others those they read themselves, as far as
   * it was released. Of a record in the world that the standing names, which may be one that is
   * only wished for.
   */
  public LandingView of(RecordAccess.Standing standing) {
    World world = standing.world();
    WorkRecord record = standing.record();
    RecordReaders readers = RecordReaders.of(record, world.crew());
    List<LandingView.Lands> lands = new ArrayList<>();
    List<LandingView.Nowhere> nowhere = new ArrayList<>();
    Map<EntryKey, Projector.Projected> waiting = waiting(standing);
    for (Calendar calendar : world.router().near(record)) {
      boolean reads = world.calendars().servedTo(standing.person().id(), calendar.id()).isPresent();
      if (!standing.isOffice() && !reads) {
        continue;
      }
      for (Landing landing : world.router().explain(record, calendar, standing::sees)) {
        if (landing instanceof Landing.Lands one) {
          lands(standing, readers, calendar, one, waiting.get(one.entry().key()))
              .ifPresent(lands::add);
        } else {
          LandingView.Why why = why(standing, ((Landing.Nowhere) landing).why());
          nowhere.add(new LandingView.Nowhere(calendar.id().value(), calendar.name(), why));
        }
      }
    }
    lands.sort(Comparator.comparing(LandingView.Lands::sort));
    return new LandingView(lands, nowhere);
  }

  /** Those of its entries that wait for a yes. */
  private Map<EntryKey, Projector.Projected> waiting(RecordAccess.Standing standing) {
    World world = standing.world();
    if (!world.asksForYes()) {
      return Map.of();
    }
    WorkRecord record = standing.record();
    return world.projector().project(record, releases.of(world, List.of(record.id()))).stream()
        .filter(Projector.Projected::asks)
        .collect(Collectors.toMap(one -> one.entry().key(), one -> one));
  }

  private static LandingView.Why why(RecordAccess.Standing standing, Reason reason) {
    boolean typed =
        reason.code() == Reason.Code.NOT_SENT
            || reason.code() == Reason.Code.NEVER_HERE
            || reason.code() == Reason.Code.ALSO_HERE;
    if (typed) {
      String told = standing.isOffice() ? reason.subject() : "";
      return new LandingView.Why(reason.code(), told);
    }
    if (reason.subject().isEmpty()) {
      return new LandingView.Why(reason.code(), "");
    }
    LandingRule rule = standing.world().rulesById().get(Long.valueOf(reason.subject()));
    return new LandingView.Why(
        reason.code(), rule.position() + (rule.note().isEmpty() ? "" : ": " + rule.note()));
  }

  private Optional<LandingView.Lands> lands(
      RecordAccess.Standing standing,
      RecordReaders readers,
      Calendar calendar,
      Landing.Lands landing,
      Projector.Projected waits) {
    World world = standing.world();
    Entry entry = landing.entry();
    if (waits != null && !waits.isServed() && !standing.isOffice()) {
      return Optional.empty();
    }
    Optional<Rendering> served = served(standing, calendar);
    if (served.isEmpty()) {
      return Optional.empty();
    }
    Audience audience = world.calendars().audience(served.get().id());
    // Whoever only reads it is told of what was released; the office of what it would become.
    Optional<Face> face =
        waits != null && !standing.isOffice()
            ? waits
                .keep()
                .flatMap(
                    kept ->
                        world
                            .sight()
                            .face(standing.record(), readers, kept, audience, Sight.UNCOVERED))
            : world.sight().face(standing.record(), readers, entry, audience);
    if (face.isEmpty() && !standing.isOffice()) {
      return Optional.empty();
    }
    boolean times = standing.sees(DetailKey.TIMES);
    List<LandingView.Why> why = new ArrayList<>();
    landing.reasons().forEach(reason -> why.add(why(standing, reason)));
    return Optional.of(
        new LandingView.Lands(
            calendar.id().value(),
            calendar.name(),
            calendar.owner().sort(),
            entry.key().family(),
            standing.record().visits().size() > 1 ? entry.key().visit() : null,
            waits == null || !standing.isOffice() ? null : Sights.waits(waits),
            times ? times(times(standing, entry, face)) : null,
            times && entry.marks().late(),
            times && entry.marks().unhanded(),
            ReaderWords.mayList(standing.person(), calendar) ? audience.people().size() : 0,
            asked(world, standing.record(), readers, entry, audience),
            world.details().of(standing.record().kind()).size(),
            details(standing, readers, entry, audience, calendar),
            why));
  }

  /** As whom it is told: the office as its members get it, others as they read it themselves. */
  private static Optional<Rendering> served(RecordAccess.Standing standing, Calendar calendar) {
    return standing.isOffice()
        ? standing.world().calendars().renderingsOf(calendar.id()).stream()
            .filter(one -> one.way() instanceof Rendering.Way.Members)
            .findFirst()
        : standing.world().calendars().servedTo(standing.person().id(), calendar.id());
  }

  /** As the face has it, and no margins for who may not see them (LANDING 11). */
  private static EntryTimes times(
      RecordAccess.Standing standing, Entry entry, Optional<Face> face) {
    EntryTimes told = face.map(Face::times).orElse(entry.times());
    return told.equals(entry.times()) && !standing.sees(DetailKey.MARGINS)
        ? entry.bareTimes().orElse(told)
        : told;
  }

  private static int asked(
      World world, WorkRecord record, RecordReaders readers, Entry entry, Audience audience) {
    return (int)
        world.sight().explain(record, readers, entry, audience).stream()
            .filter(Sight.Told::counts)
            .count();
  }

  static LandingView.TimesView times(EntryTimes times) {
    if (times instanceof EntryTimes.Timed timed) {
      return new LandingView.TimesView(
          timed.start().toLocalDateTime().withNano(0).toString(),
          timed.end().toLocalDateTime().withNano(0).toString(),
          timed.start().getZone().getId(),
          null,
          null);
    }
    EntryTimes.AllDay allDay = (EntryTimes.AllDay) times;
    return new LandingView.TimesView(
        null,
        null,
        null,
        allDay.days().first().toString(),
        allDay.days().until().minusDays(1).toString());
  }

  private static List<LandingView.DetailShown> details(
      RecordAccess.Standing standing,
      RecordReaders readers,
      Entry entry,
      Audience audience,
      Calendar calendar) {
    World world = standing.world();
    List<LandingView.DetailShown> found = new ArrayList<>();
    for (Sight.Told told : world.sight().explain(standing.record(), readers, entry, audience)) {
      String label = world.details().find(told.detail()).map(DetailDefinition::label).orElse("");
      boolean mayKnowFilled = standing.sees(told.detail());
      String because =
          switch (told.status()) {
            case SHOWN -> null;
            case DOES_NOT_APPLY -> mayKnowFilled ? say("records.does-not-apply") : null;
            case EMPTY -> mayKnowFilled ? "empty" : null;
            case NOT_ASKED -> say("records.not-in-the-wording");
            case NOT_FOR_A_READER -> say("records.hidden-from", reader(standing, calendar, told));
          };
      found.add(new LandingView.DetailShown(label, because == null, because));
    }
    return found;
  }

  private static String reader(RecordAccess.Standing standing, Calendar calendar, Sight.Told told) {
    return told.blocking()
        .filter(id -> ReaderWords.mayList(standing.person(), calendar))
        .flatMap(standing.world().crew()::person)
        .map(Person::name)
        .map(name -> say("records.who-reads-this-calendar", name))
        .orElse(say("records.somebody-who-reads-this"));
  }
}
