package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Iterator;
import java.util.List;
import mellowrota.server.platform.Problem;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** Reads separated values (RFC 4180; semicolons and tabs too) of any usual encoding. */
final class CsvReader {

  private static final Charset OLDER = Charset.forName("windows-1252");
  private static final char BYTE_ORDER_MARK = '\ufeff';

  private CsvReader() {}

  private record Decoded(String text, String encoding) {}

  /**
   * The rows of the file; what follows a fault of its writing is told as not read.
   *
   * @throws Problem where it is no such file at all
   */
  static Table read(byte[] file) {
    Decoded decoded = decode(file);
    String text = decoded.text();
    if (text.isBlank()) {
      throw Problem.of(422, "unreadable", say("incoming.the-file-is-empty"));
    }
    char separator = separator(text);
    List<List<String>> found = new ArrayList<>();
    List<Table.NotRead> notRead = new ArrayList<>();
    try (CSVParser parser =
        CSVParser.builder()
            .setReader(new StringReader(text))
            .setFormat(CSVFormat.RFC4180.builder().setDelimiter(separator).get())
            .get()) {
      Iterator<CSVRecord> records = parser.iterator();
      while (records.hasNext()) {
        found.add(records.next().toList());
        if (found.size() > Table.MOST_ROWS + 1) {
          throw tooMany();
        }
      }
    } catch (IOException | UncheckedIOException | IllegalStateException broken) {
      int row = found.size() + 1;
      notRead.add(
          new Table.NotRead(
              row,
              say("incoming.row-and-everything-below", row),
              say("incoming.a-quotation-mark-in", row)));
    }
    if (found.isEmpty()) {
      throw Problem.of(
          422, "unreadable", say("incoming.the-first-row-cannot", notRead.get(0).why()));
    }
    return table(found, notRead, decoded.encoding());
  }

  private static Problem tooMany() {
    return Problem.of(413, "too-much", say("incoming.a-file-can-hold-at", Table.MOST_ROWS));
  }

  private static final String TOO_LONG = say("incoming.a-cell-is-longer", Table.LONGEST_CELL);

  private static Table table(
      List<List<String>> found, List<Table.NotRead> notRead, String encoding) {
    List<String> columns = found.get(0).stream().map(String::strip).toList();
    if (columns.size() > Table.MOST_COLUMNS) {
      throw Problem.of(422, "unreadable", say("incoming.the-file-has-more"));
    }
    List<Table.Row> rows = new ArrayList<>();
    for (int i = 1; i < found.size(); i++) {
      List<String> cells = found.get(i).stream().map(String::strip).toList();
      if (cells.stream().allMatch(String::isEmpty)) {
        continue;
      }
      if (cells.stream().anyMatch(cell -> cell.length() > Table.LONGEST_CELL)) {
        notRead.add(new Table.NotRead(i + 1, "row " + (i + 1), TOO_LONG));
        continue;
      }
      rows.add(new Table.Row(i + 1, cells));
    }
    return new Table(columns, rows, notRead, encoding);
  }

  private static Decoded decode(byte[] file) {
    if (file.length > 3 && file[0] == 'P' && file[1] == 'K' && file[2] == 3) {
      throw Problem.of(422, "unreadable", say("incoming.this-is-a-spreadsheet"));
    }
    if (file.length > 1 && (file[0] == -1 && file[1] == -2 || file[0] == -2 && file[1] == -1)) {
      return new Decoded(unmarked(new String(file, StandardCharsets.UTF_16)), "UTF-16");
    }
    try {
      String text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(file)).toString();
      return new Decoded(unmarked(text), "UTF-8");
    } catch (CharacterCodingException older) {
      return new Decoded(new String(file, OLDER), OLDER.displayName());
    }
  }

  private static String unmarked(String text) {
    return !text.isEmpty() && text.charAt(0) == BYTE_ORDER_MARK ? text.substring(1) : text;
  }

  /** The one that parts the header most. */
  private static char separator(String text) {
    String header = text.lines().findFirst().orElse("").replaceAll("\"[^\"]*\"", "");
    return List.of(',', ';', '\t').stream()
        .max(Comparator.comparingLong(one -> header.chars().filter(c -> c == one).count()))
        .orElseThrow();
  }
}
