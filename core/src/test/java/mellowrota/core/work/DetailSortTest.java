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
      {DetailSort.MAIL, "lock-7@quillwater.example", "lock-7@quillwater.example"},
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
    assertThat(sort.read(typed, CHOICES, "").value()).contains(kept);
    assertThat(sort.read(kept, CHOICES, "").value()).as("read again").contains(kept);
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
      {DetailSort.MAIL, "lock 7 at quillwater", "be a mail address"},
      {DetailSort.MAIL, "keeper@quillwater", "be a mail address"},
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
    DetailSort.Reading reading = sort.read(typed, CHOICES, "");
    assertThat(reading.value()).isEmpty();
    assertThat(reading.remedy()).contains(remedy);
  }

  @Test
  public void blankIsEmptyInEverySort() {
    for (DetailSort sort : DetailSort.values()) {
      assertThat(sort.read("  ", CHOICES, "").value()).as(sort.name()).contains("");
    }
  }

  @DataProvider
  public Object[][] withUnits() {
    return new Object[][] {
      {DetailSort.MONEY, "EUR", "120", "120.00", "120.00 EUR"},
      {DetailSort.MONEY, "EUR", "EUR 120,5", "120.50", "120.50 EUR"},
      {DetailSort.MONEY, "EUR", "120.50 eur", "120.50", "120.50 EUR"},
      {DetailSort.MONEY, "JPY", "1200", "1200", "1200 JPY"},
      {DetailSort.MONEY, "TND", "1.005", "1.005", "1.005 TND"},
      {DetailSort.NUMBER, "gates", "12 gates", "12", "12 gates"},
      {DetailSort.NUMBER, "", "12", "12", "12"},
      {DetailSort.DATE, "", "2026-11-27", "2026-11-27", "Fri 27 Nov 2026"},
      {DetailSort.TEXT, "gates", "12 gates", "12 gates", "12 gates"},
    };
  }

  @Test(dataProvider = "withUnits")
  public void unitsMayBeTypedAndAreSaid(
      DetailSort sort, String unit, String typed, String kept, String said) {
    assertThat(sort.read(typed, List.of(), unit).value()).contains(kept);
    assertThat(sort.said(kept, unit)).isEqualTo(said);
  }

  @Test
  public void amountsHaveAsManyDecimalsAsTheirCurrency() {
    assertThat(DetailSort.MONEY.read("12.5", List.of(), "JPY").remedy())
        .isEqualTo("must be an amount such as 120, which is in JPY");
    assertThat(DetailSort.MONEY.read("12 EUR", List.of(), "JPY").value()).isEmpty();
  }

  @DataProvider
  public Object[][] compared() {
    return new Object[][] {
      {DetailSort.NUMBER, "9", ValueTest.UNDER, "20", true},
      {DetailSort.NUMBER, "20", ValueTest.OVER, "20", false},
      {DetailSort.NUMBER, "20.5", ValueTest.OVER, "20", true},
      {DetailSort.MONEY, "20.00", ValueTest.IS, "20", true},
      {DetailSort.DATE, "2026-11-27", ValueTest.OVER, "2026-09-30", true},
      {DetailSort.CHOICE, "North bank", ValueTest.IS, "north bank", true},
      {DetailSort.YES_NO, "no", ValueTest.IS, "yes", false},
      // What was typed before it was a number is none.
      {DetailSort.NUMBER, "a dozen", ValueTest.OVER, "1", false},
      {DetailSort.NUMBER, "a dozen", ValueTest.IS, "1", false},
      {DetailSort.DATE, "soon", ValueTest.UNDER, "2026-09-30", false},
    };
  }

  @Test(dataProvider = "compared")
  public void valuesOfASortAreCompared(
      DetailSort sort, String value, ValueTest test, String than, boolean holds) {
    assertThat(test.holds(sort, value, than)).isEqualTo(holds);
  }
}
