package mellowrota.server.links.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.SequenceGenerator;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;

/** When somebody is busy outside: times and nothing more. Numbers are taken in blocks. */
@Entity
@Table(name = "busy")
final class BusyEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.SEQUENCE, generator = "busy")
  @SequenceGenerator(name = "busy", sequenceName = "busy_id_seq", allocationSize = 50)
  Long id;

  @Column(name = "link_calendar")
  long outlet;

  String href;

  String uidHash;

  Instant starts;
  Instant ends;

  LocalDate firstDay;

  LocalDate untilDay;

  boolean tentative;
}
