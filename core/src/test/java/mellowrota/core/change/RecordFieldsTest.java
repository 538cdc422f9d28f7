package mellowrota.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mellowrota.core.RandomWorlds;
import mellowrota.core.Worlds;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class RecordFieldsTest {

  @DataProvider
  Object[][] seeds() {
    Object[][] seeds = new Object[500][];
    for (int i = 0; i < seeds.length; i++) {
      seeds[i] = new Object[] {(long) i};
    }
    return seeds;
  }

  @Test(dataProvider = "seeds")
  public void anyChangeIsUndoneByItsInverse(long seed) {
    RandomWorlds random = new RandomWorlds(seed);
    WorkRecord one = random.record(7);
    WorkRecord other = random.record(7).with().called(one.id(), one.ref()).kind(one.kind()).build();
    List<FieldChange> changes = RecordFields.between(one, other);
    WorkRecord there = RecordFields.apply(one, changes);
    assertThat(RecordFields.flatten(there)).isEqualTo(RecordFields.flatten(other));
    WorkRecord back =
        RecordFields.apply(there, changes.stream().map(FieldChange::inverse).toList());
    assertThat(RecordFields.flatten(back)).isEqualTo(RecordFields.flatten(one));
  }

  @Test
  public void undoLeavesWhatSomebodyChangedSince() {
    WorkRecord before = Worlds.ticket().detail(DetailKey.PHONE, DetailValue.of("1")).build();
    WorkRecord after =
        before.with().detail(DetailKey.PHONE, DetailValue.of("2")).state(State.DONE).build();
    List<FieldChange> done = RecordFields.between(before, after);
    WorkRecord since = after.with().detail(DetailKey.PHONE, DetailValue.of("3")).build();
    Undo undo = Undo.of(done, RecordFields.flatten(since));
    assertThat(undo.leaves()).containsExactly(RecordFields.detail(DetailKey.PHONE));
    WorkRecord undone = RecordFields.apply(since, undo.takesBack());
    assertThat(undone.state()).isEqualTo(State.CONFIRMED);
    assertThat(undone.text(DetailKey.PHONE)).contains("3");
    assertThat(Undo.of(done, Map.of()).leaves()).isNotEmpty();
  }
}
