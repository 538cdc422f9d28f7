package mellowrota.server.records.store;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import mellowrota.core.work.Due;

/** A due time as it is kept: local time, zone and chosen offset, or a day. */
@Embeddable
public class DueParts {

  @Column(name = "due_local")
  LocalDateTime local;

  @Column(name = "due_zone")
  String zone;

  @Column(name = "due_offset")
  String offset;

  @Column(name = "due_day")
  LocalDate day;

  protected DueParts() {}

  public DueParts(Due due) {
    if (due instanceof Due.At at) {
      ZonedDateTime time = at.time();
      local = time.toLocalDateTime();
      zone = time.getZone().getId();
      offset = time.getOffset().getId();
    } else {
      day = ((Due.On) due).day();
    }
  }

  public Due due() {
    return day != null ? new Due.On(day) : new Due.At(VisitPart.time(local, zone, offset));
  }
}
