package mellowrota.server.platform;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** Comma-separated values as RFC 4180 says. */
public final class Csv {

  private static final Pattern PLAIN = Pattern.compile("[+-]?[0-9 .,()/-]*");

  private Csv() {}

  public static String write(List<String> header, List<List<String>> rows) {
    StringBuilder out = new StringBuilder();
    try (CSVPrinter printer = new CSVPrinter(out, CSVFormat.RFC4180)) {
      printer.printRecord(header);
      for (List<String> row : rows) {
        printer.printRecord(row.stream().map(Csv::harmless).toList());
      }
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
    return out.toString();
  }

  /** A spreadsheet takes what begins so for a formula; numbers and phone numbers stay. */
  private static String harmless(String value) {
    boolean formula = !value.isEmpty() && "=+-@\t\r".indexOf(value.charAt(0)) >= 0;
    return formula && !PLAIN.matcher(value).matches() ? "'" + value : value;
  }
}
