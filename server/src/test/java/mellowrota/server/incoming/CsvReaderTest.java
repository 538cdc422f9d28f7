package mellowrota.server.incoming;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import mellowrota.server.platform.Problem;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CsvReaderTest {

  private static Table read(String text) {
    return CsvReader.read(text.getBytes(StandardCharsets.UTF_8));
  }

  @DataProvider
  public Object[][] rows() {
    return new Object[][] {
      {"a,b\n1,2\n", List.of("a", "b"), List.of("1", "2")},
      {"a;b\r\n1;2\r\n", List.of("a", "b"), List.of("1", "2")},
      {"a\tb\r1\t2", List.of("a", "b"), List.of("1", "2")},
      {"\"a;x\";b\n1;2", List.of("a;x", "b"), List.of("1", "2")},
      {
        "a,b\n\"1, one\",\"say \"\"two\"\"\"\n", List.of("a", "b"), List.of("1, one", "say \"two\"")
      },
      {"a,b\n\"two\nlines\",2\n", List.of("a", "b"), List.of("two\nlines", "2")},
      {" a , b \n 1 , 2 \n", List.of("a", "b"), List.of("1", "2")},
      {"a\n1\n", List.of("a"), List.of("1")},
      {"a,b\n1\n", List.of("a", "b"), List.of("1")},
      {"a,b\n1,2,3\n", List.of("a", "b"), List.of("1", "2", "3")},
    };
  }

  @Test(dataProvider = "rows")
  public void columnsAndTheFirstRow(String text, List<String> columns, List<String> cells) {
    Table table = read(text);
    assertThat(table.columns()).isEqualTo(columns);
    assertThat(table.rows().get(0).cells()).isEqualTo(cells);
    assertThat(table.rows().get(0).row()).isEqualTo(2);
    assertThat(table.notRead()).isEmpty();
  }

  @Test
  public void emptyRowsAreNoneAndTheOthersKeepTheirNumbers() {
    Table table = read("a,b\n1,2\n,\n\n3,4\n");
    assertThat(table.rows().stream().map(Table.Row::row)).containsExactly(2, 5);
  }

  @Test
  public void aQuotationMarkWithoutItsOtherHalfEndsWhatIsRead() {
    Table table = read("a,b\n1,2\n\"3,4\n5,6\n");
    assertThat(table.rows()).hasSize(1);
    assertThat(table.notRead().get(0).row()).isEqualTo(3);
    assertThat(table.notRead().get(0).why()).contains("quotation mark in row 3");
  }

  @Test
  public void aCellLongerThanAnyIsTold() {
    Table table = read("a,b\n1,\"" + "x".repeat(Table.LONGEST_CELL + 1) + "\"\n2,y\n");
    assertThat(table.rows()).hasSize(1);
    assertThat(table.notRead().get(0).what()).isEqualTo("row 2");
  }

  @DataProvider
  public Object[][] refused() {
    return new Object[][] {
      {"  \n ", "is empty"},
      {"\"a,b\n1,2", "first row cannot be read"},
      {"a,".repeat(101) + "\n1", "more than 100 columns"},
      {"a\n" + "1\n".repeat(Table.MOST_ROWS + 1), "at most 20000 rows"},
    };
  }

  @Test(dataProvider = "refused")
  public void whatIsNoTableIsRefused(String text, String words) {
    assertThatThrownBy(() -> read(text)).isInstanceOf(Problem.class).hasMessageContaining(words);
  }
}
