package mellowrota.core.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a typed detail may hold, and how it is kept. */
public class DetailSortTest {

  private static final List<String> CHOICES = List.of("North bank", "South bank");

  @DataProvider
  public Object[][] kept() {
    return new Object[][] {
      {DetailSort.TEXT, "  two swans ", "two swans"},
      {DetailSort.NOTES, "one\ntwo", "one\ntwo"},
      {DetailSort.ADDRESS, "1 Lock Lane\nOsier", "1 Lock Lane\nOsier"},
      {DetailSort.NUMBER, "12.50", "12.5"},
      {DetailSort.NUMBER, "12,5", "12.5"},
      {DetailSort.NUMBER, "-3", "-3"},
      {DetailSort.NUMBER, "+1000", "1000"},
      {DetailSort.NUMBER, "0", "0"},
      {DetailSort.MONEY, "120", "120.00"},
      {DetailSort.MONEY, "120,5", "120.50"},
      {DetailSort.MONEY, "0.10", "0.10"},
      {DetailSort.MONEY, "9.990", "9.99"},
      {DetailSort.DATE, "2026-11-27", "2026-11-27"},
      {DetailSort.DATE, "2028-02-29", "2028-02-29"},
      {DetailSort.PHONE, "+44 (0555) 01-88", "+44 (0555) 01-88"},
      {DetailSort.CHOICE, "north BANK", "North bank"},
      {DetailSort.YES_NO, "Yes", "yes"},
      {DetailSort.YES_NO, "false", "no"},
      {
        DetailSort.LINK,
        "https://quillwater.example/lock?n=7",
        "https://quillwater.example/lock?n=7"
      },
      {DetailSort.LINK, "HTTP://quillwater.example", "HTTP://quillwater.example"},
    };
  }

  @Test(dataProvider = "kept")
  public void isKeptInOneForm(DetailSort sort, String typed, String kept) {
    assertThat(sort.read(typed, CHOICES).value()).contains(kept);
    assertThat(sort.read(kept, CHOICES).value()).as("read again").contains(kept);
  }

  @DataProvider
  public Object[][] refused() {
    return new Object[][] {
      {DetailSort.NUMBER, "a dozen", "be a number"},
      {DetailSort.NUMBER, "1.000.000", "be a number"},
      {DetailSort.NUMBER, "1e9", "be a number"},
      {DetailSort.MONEY, "£120", "without a currency sign"},
      {DetailSort.MONEY, "1.005", "be an amount"},
      {DetailSort.DATE, "27/11/2026", "such as 2026-11-27"},
      {DetailSort.DATE, "2026-02-30", "such as 2026-11-27"},
      {DetailSort.PHONE, "ask at the lock", "be a phone number"},
      {DetailSort.CHOICE, "West bank", "one of North bank, South bank"},
      {DetailSort.YES_NO, "perhaps", "be yes or no"},
      {DetailSort.LINK, "javascript:alert(1)", "begins with https://"},
      {DetailSort.LINK, "https://user@host.example/", "begins with https://"},
      {DetailSort.LINK, "https://", "begins with https://"},
      {DetailSort.LINK, "lock seven", "begins with https://"},
    };
  }

  @Test(dataProvider = "refused")
  public void saysWhatIsWantedInstead(DetailSort sort, String typed, String remedy) {
    DetailSort.Reading reading = sort.read(typed, CHOICES);
    assertThat(reading.value()).isEmpty();
    assertThat(reading.remedy()).contains(remedy);
  }

  @Test
  public void blankIsEmptyInEverySort() {
    for (DetailSort sort : DetailSort.values()) {
      assertThat(sort.read("  ", CHOICES).value()).as(sort.name()).contains("");
    }
  }
}
