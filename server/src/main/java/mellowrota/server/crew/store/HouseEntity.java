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
final class HouseEntity {

  @Id boolean one = true;

  String seed;
  String name;
  String zone;

  @Enumerated(EnumType.STRING)
  Level outsideLimit = Level.ALL;

  String outsideReason = "";

  boolean trustsOwnFeeds;

  String incarnation;

  long worldVersion = 1;

  Long fallbackWording;

  String titlesFixed;

  @Column(name = "is_demo")
  boolean demo;

  long seenUntil;

  String week = "MONDAY,TUESDAY,WEDNESDAY,THURSDAY,FRIDAY";

  boolean copiesHeld;

  int copiesWait = 60;

  int readingInterval = 300;

  @Enumerated(EnumType.STRING)
  HouseStore.DecidedBy linksDecidedBy = HouseStore.DecidedBy.PEOPLE;

  @Enumerated(EnumType.STRING)
  DayOfWeek weekBegins = DayOfWeek.MONDAY;

  int periodWeeks;

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
