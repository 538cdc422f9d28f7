package mellowrota.server.records;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class HistoryWordsTest {

  private static final WorkRecord BLANK =
      WorkRecord.blank(RecordId.of(1), "J-1", Kind.JOB, PersonId.of(1), Instant.EPOCH).build();

  @DataProvider
  public Object[][] fields() {
    return Stream.of(RecordField.values())
        .map(field -> new Object[] {field})
        .toArray(Object[][]::new);
  }

  @Test(dataProvider = "fields")
  public void everyFieldHasAWordForNothing(RecordField field) {
    String said = HistoryWords.value(null, field.kept(), BLANK);
    assertThat(said).isEqualTo(field == RecordField.STATE ? "draft" : "");
    assertThat(HistoryWords.label(null, field.kept())).isEqualTo(field.label()).isNotBlank();
  }

  @Test
  public void numbersAreSaidInTheirUnit() {
    WorkRecord record =
        BLANK
            .with()
            .estimate(Optional.of(Duration.ofMinutes(150)))
            .leastHeadCount(OptionalInt.of(3))
            .build();
    assertThat(HistoryWords.value(null, RecordField.ESTIMATE.kept(), record))
        .isEqualTo("2 h 30 min");
    assertThat(HistoryWords.value(null, RecordField.HEAD_COUNT.kept(), record)).isEqualTo("3");
  }
}
