package mellowrota.server.links.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.DynamicUpdate;

/**
 * One of an account's calendars. Each change writes its own columns: its owner, whoever reads it
 * and whoever opens its copies change it at once.
 */
@Entity
@Table(name = "link_calendar")
@DynamicUpdate
final class OutletEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long link;
  String href;

  /** Its address in one spelling. */
  String place;

  /** What its host calls it, where it tells. */
  String resource;

  /** Whether it is ours; no other link may have it then. */
  boolean open;

  String name;

  Boolean mayWrite;

  Long rendering;
  String families = "";

  LocalDate fromDay;

  String alsoRead;

  boolean readsBusy;

  String syncToken;

  String ctag;

  Instant readAt;

  Instant readDue;

  /** Up to which change of our calendar copies were opened. */
  long seenNo;

  boolean overruled;
}
