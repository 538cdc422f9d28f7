package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Due;
import mellowrota.server.platform.Input;

/** By when something is due, as it is sent ({@link RecordSchemas.DueSchema}). */
public final class DueInput {

  private DueInput() {}

  /** A local time, in the site's zone unless said, or a date. */
  public static Optional<Due> read(Input input, ZoneId siteZone) {
    Optional<LocalDate> date = input.day("date");
    Optional<LocalDateTime> at = input.localTime("at");
    Optional<ZoneId> zone = input.zone("zone");
    if (input.has("date") == input.has("at")) {
      input.fault("", say("records.needs-either-at-a"));
      return Optional.empty();
    }
    if (date.isPresent()) {
      return Optional.of(new Due.On(date.get()));
    }
    return at.map(local -> new Due.At(LocalTimes.resolve(local, zone.orElse(siteZone))));
  }
}
