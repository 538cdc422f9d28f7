package mellowrota.core.sight;

import static mellowrota.core.Worlds.dueAt;
import static mellowrota.core.Worlds.lead;
import static mellowrota.core.Worlds.own;
import static mellowrota.core.Worlds.ticket;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Reminder;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.project.Projector;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import mellowrota.core.work.WorkDays;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What each audience gets of a ticket by the usual wordings. */
public class FaceTest {

  private static final RenderingId SHARE = RenderingId.of(9001);

  private static Worlds.Builder crew() {
    return Worlds.world()
        .coordinator(1, "Hana")
        .worker(2, "Ines")
        .worker(3, "Tam")
        .worker(4, "Wren")
        .person(
            new Person(
                PersonId.of(8),
                "Osier Marina",
                Person.Standing.OUTSIDE,
                Person.AccountRight.NONE,
                Set.of()))
        .person(
            new Person(
                PersonId.of(9),
                "Odile",
                Person.Standing.AGENCY,
                Person.AccountRight.NONE,
                Set.of()))
        .team(1, "Thornmere", 2, 4)
        .place(7, "L7", "Lock 7");
  }

  private static WorkRecord.Builder paddle() {
    return ticket()
        .due(dueAt("2026-11-27T13:00"))
        .place(Optional.of(PlaceId.of(7)))
        .assignments(List.of(lead(2, Worlds.NOW)))
        .detail(DetailKey.TITLE, DetailValue.of("Stuck paddle"))
        .detail(DetailKey.CONTACT, DetailValue.of("H. Varga"))
        .detail(DetailKey.PHONE, DetailValue.of("0555 0142"))
        .detail(DetailKey.GATE_CODE, DetailValue.of("4471"))
        .detail(DetailKey.QUOTE, DetailValue.of("140 agreed"));
  }

  private static Optional<Face> face(Worlds.World world, WorkRecord record, long rendering) {
    return world.projector().project(record).stream()
        .flatMap(p -> p.faces().stream())
        .filter(seen -> seen.rendering().value() == rendering)
        .map(Projector.Seen::face)
        .findFirst();
  }

  private static long members(CalendarId calendar) {
    return calendar.value();
  }

  @Test
  public void theLeadHasWhatIsNeededAtTheSite() {
    Face face = face(crew().build(), paddle().build(), members(own(2))).orElseThrow();
    assertThat(face.title()).isEqualTo("T-318 Stuck paddle · Lock 7");
    assertThat(face.place()).isEqualTo("Lock 7");
    assertThat(face.text()).isEqualTo("Gate code 4471\nH. Varga\n0555 0142");
  }

  @Test
  public void ofTenDetailsTheLeadSeesSevenAndTheTeamFour() {
    assertThat(counted(own(2))).isEqualTo(7);
    assertThat(counted(Worlds.ofTeam(1))).isEqualTo(4);
    assertThat(counted(CalendarId.of(2))).isEqualTo(3);
    assertThat(counted(CalendarId.of(1))).isEqualTo(4);
  }

  private static long counted(CalendarId calendar) {
    Worlds.World world = crew().build();
    WorkRecord record = paddle().build();
    Entry entry =
        world.router().land(record).stream()
            .filter(l -> l.calendar().equals(calendar))
            .findFirst()
            .orElseThrow()
            .entry();
    return world
        .sight()
        .explain(
            record,
            RecordReaders.of(record, world.crew()),
            entry,
            world.calendars().audience(RenderingId.of(calendar.value())))
        .stream()
        .filter(Sight.Told::counts)
        .count();
  }

  @Test
  public void supportHasNoGateCode() {
    WorkRecord record =
        paddle().assignments(List.of(lead(2, Worlds.NOW), Worlds.as(RoleId.SUPPORT, 3))).build();
    Face face = face(crew().build(), record, members(own(3))).orElseThrow();
    assertThat(face.text()).isEqualTo("H. Varga\n0555 0142");
  }

  @DataProvider
  public Object[][] reminded() {
    // At Lock 7 the Thursday before the Friday it is due is a holiday; at the office it is not.
    return new Object[][] {
      {ForSet.PEOPLE_ON_IT, Duration.ofDays(2)},
      {ForSet.CREW, Duration.ofDays(2)},
      {ForSet.OFFICE, Duration.ofDays(1)},
    };
  }

  @Test(dataProvider = "reminded")
  public void reminderCountsTheDaysOfThePlaceOnlyWhereThePlaceMayBeKnown(
      ForSet place, Duration before) {
    WorkingDays atTheLock =
        new WorkingDays(Worlds.WEEK, Map.of(LocalDate.of(2026, 11, 26), "Lantern Day"), List.of());
    LandingRule own = Worlds.houseRules().get(0);
    LandingRule reminding =
        new LandingRule(
            own.id(),
            own.position(),
            own.on(),
            own.when(),
            own.targets(),
            own.shape(),
            own.wording(),
            own.busy(),
            new Entry.With(List.of(new Reminder(1, Reminder.Unit.WORKING_DAYS)), Attendees.NOBODY),
            own.whenDone(),
            own.afterYes(),
            own.note());
    Worlds.World world =
        crew()
            .rules(List.of(reminding))
            .workDays(new WorkDays(Map.of(PlaceId.of(7), atTheLock), Worlds.WEEKDAYS.office()))
            .build();
    WorkRecord record = paddle().detail(DetailKey.PLACE, DetailValue.of("").withFor(place)).build();
    assertThat(face(world, record, members(own(2))).orElseThrow().alarms())
        .containsExactly(new Alarm(before, true));
  }

  @Test
  public void theTeamSeesWhoIsAtWhat() {
    Face face = face(crew().build(), paddle().build(), members(Worlds.ofTeam(1))).orElseThrow();
    assertThat(face.title()).isEqualTo("Stuck paddle · Ines");
    assertThat(face.text()).isEmpty();
  }

  @Test
  public void oneWhoMayNotSeeADetailHidesItFromTheWholeAudience() {
    Worlds.World world = crew().team(5, "With agency", 2, 9).build();
    Face team = face(world, paddle().build(), members(Worlds.ofTeam(5))).orElseThrow();
    assertThat(team.title()).as("people are for crew, Odile is not").isEqualTo("Stuck paddle");
  }

  @Test
  public void anEmptyTitleBecomesTheRefOrWork() {
    WorkRecord untitled =
        paddle()
            .detail(DetailKey.TITLE, DetailValue.of("Secret").withFor(ForSet.OFFICE))
            .assignments(List.of(lead(9, Worlds.NOW)))
            .build();
    Worlds.World world = crew().team(5, "With agency", 2, 9).build();
    assertThat(face(world, untitled, members(Worlds.ofTeam(5))).orElseThrow().title())
        .isEqualTo("Work");
    WorkRecord crewOnly =
        paddle()
            .detail(DetailKey.TITLE, DetailValue.of("Secret").withFor(ForSet.OFFICE))
            .detail(DetailKey.PEOPLE, DetailValue.of("").withFor(ForSet.OFFICE))
            .build();
    assertThat(face(world, crewOnly, members(Worlds.ofTeam(1))).orElseThrow().title())
        .isEqualTo("T-318");
  }

  @Test
  public void timesKeptBackFromOneReaderMeanNoEntryForThatAudience() {
    WorkRecord record =
        paddle().detail(DetailKey.TIMES, DetailValue.of("").withFor(ForSet.PEOPLE_ON_IT)).build();
    Worlds.World world = crew().build();
    assertThat(face(world, record, members(Worlds.ofTeam(1)))).isEmpty();
    assertThat(face(world, record, members(own(2)))).isPresent();
  }

  private static Worlds.World sharedWith(long reader, Level level, House house) {
    return crew()
        .house(house)
        .rendering(
            new Rendering(
                SHARE, Worlds.ofTeam(1), new Rendering.Way.Share(PersonId.of(reader), level)))
        .build();
  }

  private static House limited(Level outside) {
    return new House("seed", "House", Worlds.LONDON, outside, false, Worlds.WEEK);
  }

  @Test
  public void aShareBelowAllShowsWorkWithoutText() {
    Worlds.World world = sharedWith(8, Level.TIMES_AND_PLACE, limited(Level.ALL));
    Face face = face(world, paddle().build(), SHARE.value()).orElseThrow();
    assertThat(face.title()).isEqualTo("Work");
    assertThat(face.place()).isEqualTo("Lock 7");
    assertThat(face.text()).isEmpty();
    Worlds.World busy = sharedWith(8, Level.BUSY_ONLY, limited(Level.ALL));
    assertThat(face(busy, paddle().build(), SHARE.value()).orElseThrow().place()).isEmpty();
  }

  @Test
  public void theHousesLimitHoldsForOutsidersAndNotForCrew() {
    House house = limited(Level.TIMES_AND_PLACE);
    Face outside =
        face(sharedWith(8, Level.ALL, house), paddle().build(), SHARE.value()).orElseThrow();
    assertThat(outside.title()).isEqualTo("Work");
    Face crew =
        face(sharedWith(3, Level.ALL, house), paddle().build(), SHARE.value()).orElseThrow();
    assertThat(crew.title()).isEqualTo("Stuck paddle · Ines");
  }

  @Test
  public void anAgencyLeadGetsWhatTheRoleGetsWithinTheLimit() {
    WorkRecord record = paddle().assignments(List.of(lead(9, Worlds.NOW))).build();
    Face all = face(crew().build(), record, members(own(9))).orElseThrow();
    assertThat(all.text()).contains("4471");
    Face limited =
        face(crew().house(limited(Level.BUSY_ONLY)).build(), record, members(own(9))).orElseThrow();
    assertThat(limited.title()).isEqualTo("Work");
    assertThat(limited.text()).isEmpty();
  }

  @Test
  public void aFeedIsReadByAnybody() {
    Worlds.World world =
        crew().rendering(new Rendering(SHARE, own(2), new Rendering.Way.Feed(Level.ALL))).build();
    Face feed = face(world, paddle().build(), SHARE.value()).orElseThrow();
    assertThat(feed.title()).as("the ref is for crew").isEqualTo("Stuck paddle · Lock 7");
    assertThat(feed.text()).isEmpty();
  }

  @Test
  public void ownFeedsAreTheirPersonsOnlyWhereTheHouseTrustsThat() {
    Rendering feed =
        new Rendering(SHARE, own(2), new Rendering.Way.OwnFeed(PersonId.of(2), Level.ALL));
    House trusting = new House("seed", "House", Worlds.LONDON, Level.ALL, true, Worlds.WEEK);
    assertThat(face(crew().rendering(feed).build(), paddle().build(), 9001).orElseThrow().text())
        .isEmpty();
    assertThat(
            face(crew().house(trusting).rendering(feed).build(), paddle().build(), 9001)
                .orElseThrow()
                .text())
        .contains("4471");
  }

  @Test
  public void teamCoordinatorsAreOfficeByAPersonOnItThroughTeamsTooButNotByAWiderTeamItself() {
    Person marguerite =
        new Person(
            PersonId.of(6),
            "Marguerite",
            Person.Standing.HOUSE,
            Person.AccountRight.TEAM_COORDINATOR,
            Set.of(mellowrota.core.people.TeamId.of(1)));
    Worlds.World world =
        crew()
            .person(marguerite)
            .team(3, "Everyone")
            .joins(
                3,
                mellowrota.core.people.Holder.of(mellowrota.core.people.TeamId.of(1)),
                LocalDate.of(2026, 1, 1))
            .build();
    assertThat(RecordReaders.of(paddle().build(), world.crew()).of(marguerite).isOffice()).isTrue();
    WorkRecord informed = paddle().assignments(List.of(Worlds.as(RoleId.INFORMED, 2))).build();
    assertThat(RecordReaders.of(informed, world.crew()).of(marguerite).isOffice()).isFalse();
    WorkRecord wider =
        paddle()
            .assignments(
                List.of(
                    new mellowrota.core.work.Assignment(
                        1,
                        mellowrota.core.people.Holder.of(mellowrota.core.people.TeamId.of(3)),
                        RoleId.LEAD,
                        Worlds.NOW)))
            .build();
    assertThat(RecordReaders.of(wider, world.crew()).of(marguerite).isOffice())
        .as("her people are on it through a wider team")
        .isTrue();
    WorkRecord ofTheWider =
        paddle()
            .assignments(List.of())
            .team(Optional.of(mellowrota.core.people.TeamId.of(3)))
            .build();
    assertThat(RecordReaders.of(ofTheWider, world.crew()).of(marguerite).isOffice())
        .as("the record is the wider team's, none of her people are on it")
        .isFalse();
  }

  @Test
  public void canonicalContentIsReadBackTheSame() {
    Worlds.World world = crew().build();
    for (Projector.Projected projected : world.projector().project(paddle().build())) {
      for (Projector.Seen seen : projected.faces()) {
        assertThat(Face.parse(seen.face().canonical())).isEqualTo(seen.face());
      }
    }
    Face allDay =
        new Face(
            "a",
            "",
            "b\nc",
            new EntryTimes.AllDay(DaySpan.ofDay(Worlds.TODAY)),
            new Entry.Marks(true, false, true, false, true),
            List.of("Ticket", "x"));
    assertThat(Face.parse(allDay.canonical())).isEqualTo(allDay);
    for (Optional<Position> at : List.of(Optional.of(new Position(1.5, -2)), noPosition())) {
      Face own =
          new Face(
              "a",
              "",
              "",
              allDay.times(),
              allDay.marks(),
              List.of(),
              List.of(),
              List.of(),
              at,
              Optional.of(
                  new EntryTimes.Timed(
                      ZonedDateTime.of(2026, 11, 27, 9, 0, 0, 0, Worlds.LONDON),
                      ZonedDateTime.of(2026, 11, 27, 10, 0, 0, 0, Worlds.LONDON))),
              false);
      assertThat(Face.parse(own.canonical())).isEqualTo(own);
    }
  }

  private static Optional<Position> noPosition() {
    return Optional.empty();
  }

  @DataProvider
  public Object[][] ways() {
    return new Object[][] {
      {new Rendering.Way.Copy(Set.of(), false), true},
      {new Rendering.Way.Copy(Set.of(PersonId.of(8)), false), false},
      {new Rendering.Way.Copy(Set.of(), true), false},
      {new Rendering.Way.Feed(Level.ALL), false},
      {new Rendering.Way.Share(PersonId.of(3), Level.ALL), true},
      {new Rendering.Way.Share(PersonId.of(3), Level.TIMES_AND_PLACE), false},
    };
  }

  /** LANDING 19: an address leads only those home whom we serve what it leads to. */
  @Test(dataProvider = "ways")
  public void opensForWhomWeServeInFull(Rendering.Way way, boolean opens) {
    var world = crew().rendering(new Rendering(SHARE, own(2), way)).build();
    assertThat(world.calendars().opens(SHARE)).isEqualTo(opens);
    assertThat(world.calendars().opens(RenderingId.of(members(own(2))))).isTrue();
  }
}
