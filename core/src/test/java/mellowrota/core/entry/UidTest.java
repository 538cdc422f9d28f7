package mellowrota.core.entry;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Set;
import java.util.UUID;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.work.RecordId;
import org.testng.annotations.Test;

public class UidTest {

  @Test
  public void isTheNameBasedUuidOfSeedAndKey() {
    EntryKey key = new EntryKey(RecordId.of(13), 1, CalendarId.of(7), Family.GIVEN_DUE);
    UUID named = UUID.nameUUIDFromBytes("seed/13/1/7/GIVEN_DUE".getBytes(StandardCharsets.UTF_8));
    assertThat(Uid.of("seed", key).value()).isEqualTo(named.toString());
    assertThat(named.version()).isEqualTo(3);
  }

  @Test
  public void differsWithEveryPartOfTheKey() {
    Set<String> found = new HashSet<>();
    int keys = 0;
    for (String seed : new String[] {"one", "two"}) {
      for (int record = 1; record <= 12; record++) {
        for (int visit = 1; visit <= 12; visit++) {
          for (int calendar = 1; calendar <= 3; calendar++) {
            for (Family family : Family.values()) {
              EntryKey key =
                  new EntryKey(RecordId.of(record), visit, CalendarId.of(calendar), family);
              found.add(Uid.of(seed, key).value());
              keys++;
            }
          }
        }
      }
    }
    assertThat(found).hasSize(keys);
  }
}
