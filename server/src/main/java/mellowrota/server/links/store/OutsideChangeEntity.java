package mellowrota.server.links.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** What somebody changed in an outside calendar, and what became of it. */
@Entity
@Table(name = "outside_change")
final class OutsideChangeEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  @Column(name = "link_calendar")
  long outlet;

  long entry;
  Instant at;
  String part;
  String sent;
  String theirs;
  String ours;

  @Column(name = "theirs_ics")
  String theirsText;

  @Column(name = "ours_ics")
  String oursText;

  @Enumerated(EnumType.STRING)
  Changes.State state;

  boolean stays;
  String words;
  Long act;

  Instant settledAt;

  Long settledBy;
}
