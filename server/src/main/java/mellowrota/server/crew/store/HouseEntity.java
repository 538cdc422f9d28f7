package mellowrota.server.crew.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.DayOfWeek;
import java.time.ZoneId;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.server.crew.Weeks;
import org.hibernate.annotations.DynamicUpdate;

/**
 * The organisation and what it settled for all: one row. Each change writes its own columns, since
 * the version of the world moves past the session.
 */
@Entity
@Table(name = "house")
@DynamicUpdate
class HouseEntity {

  @Id boolean one = true;

  String seed;
  String name;
  String zone;

  @Enumerated(EnumType.STRING)
  @Column(name = "outside_limit")
  Level outsideLimit = Level.ALL;

  @Column(name = "outside_reason")
  String outsideReason = "";

  @Column(name = "trusts_own_feeds")
  boolean trustsOwnFeeds;

  String incarnation;

  @Column(name = "world_version")
  long worldVersion = 1;

  @Column(name = "fallback_wording")
  Long fallbackWording;

  @Column(name = "titles_fixed")
  String titlesFixed;

  @Column(name = "is_demo")
  boolean demo;

  @Column(name = "seen_until")
  long seenUntil;

  String week = "MONDAY,TUESDAY,WEDNESDAY,THURSDAY,FRIDAY";

  @Column(name = "copies_held")
  boolean copiesHeld;

  @Column(name = "copies_wait")
  int copiesWait = 60;

  @Column(name = "reading_interval")
  int readingInterval = 300;

  @Enumerated(EnumType.STRING)
  @Column(name = "links_decided_by")
  HouseStore.DecidedBy linksDecidedBy = HouseStore.DecidedBy.PEOPLE;

  @Enumerated(EnumType.STRING)
  @Column(name = "week_begins")
  DayOfWeek weekBegins = DayOfWeek.MONDAY;

  @Column(name = "period_weeks")
  int periodWeeks;

  @Column(name = "travel_speed")
  double travelSpeed = 40;

  Long region;

  protected HouseEntity() {}

  HouseEntity(HouseStore.Beginning beginning) {
    seed = beginning.seed();
    name = beginning.name();
    zone = beginning.zone().getId();
    incarnation = beginning.incarnation();
    demo = beginning.demo();
  }

  House house() {
    return new House(seed, name, ZoneId.of(zone), outsideLimit, trustsOwnFeeds, Weeks.of(week));
  }
}
