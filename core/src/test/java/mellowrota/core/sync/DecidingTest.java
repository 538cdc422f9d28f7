package mellowrota.core.sync;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Who decides where somebody's own calendar is copied. */
public class DecidingTest {

  /**
   * H: of the house, P: of the person; a small letter: not verified yet; with a stroke: overruled
   * before. Numbered from 1.
   */
  @DataProvider
  public Object[][] cases() {
    return new Object[][] {
      {false, "", Deciding.By.HELD, Set.of()},
      {true, "", Deciding.By.LOCK, Set.of()},
      {false, "H", Deciding.By.DEFAULT, Set.of()},
      {false, "h", Deciding.By.DEFAULT, Set.of()},
      {true, "H", Deciding.By.LOCK, Set.of()},
      {false, "P", Deciding.By.PERSON, Set.of()},
      {false, "PP", Deciding.By.PERSON, Set.of()},
      {true, "P", Deciding.By.LOCK, Set.of(1L)},
      {false, "HP", Deciding.By.PERSON, Set.of(1L)},
      {false, "Hp", Deciding.By.PERSON, Set.of()},
      {false, "HPp", Deciding.By.PERSON, Set.of()},
      {false, "hHP", Deciding.By.PERSON, Set.of(1L, 2L)},
      {true, "HP", Deciding.By.LOCK, Set.of(2L)},
      {true, "hP", Deciding.By.LOCK, Set.of()},
      {true, "hHpP", Deciding.By.LOCK, Set.of()},
      {false, "H-p", Deciding.By.PERSON, Set.of(1L)},
      {false, "H-Hp", Deciding.By.PERSON, Set.of(1L)},
      {false, "H-", Deciding.By.DEFAULT, Set.of()},
      {true, "hP-P", Deciding.By.LOCK, Set.of(2L)},
      {false, "P-", Deciding.By.PERSON, Set.of()},
      {true, "HHpP", Deciding.By.LOCK, Set.of(3L, 4L)},
    };
  }

  @Test(dataProvider = "cases")
  public void whoeversWordIsStrongestHolds(
      boolean locked, String outlets, Deciding.By by, Set<Long> overruled) {
    List<Deciding.Outlet> list = new ArrayList<>();
    for (String one : outlets.split("(?<=[-hHpP])(?=[hHpP])")) {
      if (!one.isEmpty()) {
        list.add(
            new Deciding.Outlet(
                list.size() + 1,
                Character.toLowerCase(one.charAt(0)) == 'h',
                Character.isUpperCase(one.charAt(0)),
                one.endsWith("-")));
      }
    }
    assertThat(Deciding.of(locked, list)).isEqualTo(new Deciding(by, overruled));
  }
}
