package mellowrota.server.incoming;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import mellowrota.server.incoming.Moment.Strokes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class MomentTest {

  @DataProvider
  public Object[][] readable() {
    return new Object[][] {
      {"2026-11-27", null, "2026-11-27"},
      {"2026-1-7", null, "2026-01-07"},
      {"2026-11-27T13:00", null, "2026-11-27T13:00"},
      {"2026-11-27 13:00", null, "2026-11-27T13:00"},
      {"2026-11-27  9:05", null, "2026-11-27T09:05"},
      {"2026-11-27T13:00:59", null, "2026-11-27T13:00"},
      {"2026-11-27T13:00:59.123", null, "2026-11-27T13:00"},
      {"2026-11-27 1:30 PM", null, "2026-11-27T13:30"},
      {"2026-11-27 12:15 am", null, "2026-11-27T00:15"},
      {"2026-11-27 12:15 p.m.", null, "2026-11-27T12:15"},
      {"27.11.2026", null, "2026-11-27"},
      {"7.1.2026 08:30", null, "2026-01-07T08:30"},
      {"3/4/2027", Strokes.DAY_FIRST, "2027-04-03"},
      {"3/4/2027", Strokes.MONTH_FIRST, "2027-03-04"},
      {"12/31/2027 23:59", Strokes.MONTH_FIRST, "2027-12-31T23:59"},
      {"29.2.2028", null, "2028-02-29"},
    };
  }

  @Test(dataProvider = "readable")
  public void isReadAsFilesWriteIt(String text, Strokes strokes, String iso) throws Exception {
    assertThat(Moment.read(text, Optional.ofNullable(strokes)).iso()).isEqualTo(iso);
  }

  @DataProvider
  public Object[][] unreadable() {
    return new Object[][] {
      {"soon", null, "is not a date; write 2026-11-27"},
      {"", null, "is not a date"},
      {"2026-11-27T", null, "is not a date"},
      {"2026-11-27 1300", null, "is not a date"},
      {"27-11-2026", null, "is not a date"},
      {"2026-13-01", null, "is not in the calendar"},
      {"29.2.2027", null, "is not in the calendar"},
      {"31/12/2027", Strokes.MONTH_FIRST, "is not in the calendar"},
      {"31/12/2027", null, "can be read in two ways"},
      {"2026-11-27 24:00", null, "is not a time"},
      {"2026-11-27 10:60", null, "is not a time"},
      {"2026-11-27 13:00 pm", null, "is not a time"},
      {"2026-11-27 0:30 am", null, "is not a time"},
    };
  }

  @Test(dataProvider = "unreadable")
  public void whatIsNoneSaysHowToMendIt(String text, Strokes strokes, String words) {
    assertThatThrownBy(() -> Moment.read(text, Optional.ofNullable(strokes)))
        .isInstanceOf(Moment.Unreadable.class)
        .hasMessageContaining(words);
  }
}
