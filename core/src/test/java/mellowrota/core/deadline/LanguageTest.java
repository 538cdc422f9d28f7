package mellowrota.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is written is read as it was meant, and whatever is typed is read to its end. */
public final class LanguageTest {

  /** 100 000 on demand. */
  private static final int CHAINS = Integer.getInteger("chains", 3000);

  /** 1 000 000 on demand. */
  private static final int TEXTS = Integer.getInteger("texts", 10_000);

  @DataProvider
  public Object[][] examples() {
    return Stream.of(FaultsTest.resource("chains.txt").split("----\n"))
        .map(one -> new Object[] {one.split("==\n")[0]})
        .toArray(Object[][]::new);
  }

  @Test(dataProvider = "examples")
  public void theExamplesAreRead(String text) {
    ChainReader.Reading reading = ChainReader.read(text, House.KNOWN);
    assertThat(reading.faults()).isEmpty();
    Chain chain = reading.chain().orElseThrow();
    assertThat(ChainReader.read(Spelling.of(chain), House.KNOWN).chain()).contains(chain);
  }

  @DataProvider
  public Object[][] spellings() {
    return new Object[][] {
      {"1 DAYS Before x:  a \t b", "1 day before x: a b"},
      {"0028 day after x, AT 9:05, By post: a", "28 days after x, by post, at 09:05: a"},
      {
        "0 day after x, on any day, by Chosen Method: a",
        "0 days after x, by chosen method, on any day: a"
      },
      {"0 day after x, by \"chosen method\": a", "0 days after x, by \"chosen method\": a"},
      {"on \"x\": \"a, b\"", "on x: \"a, b\""},
      {"on x: gate #7 # the lower one", "on x: gate #7"},
      {"on x: \"gate # 7\"", "on x: \"gate # 7\""},
      {"on x: \"say \"\"go\"\"\"", "on x: \"say \"\"go\"\"\""},
      {
        "on x: a; unless q; remind 1 working days before at 8:00; for \"as\" as Lead; for the Lead",
        "on x: a; for \"as\" as Lead; for the Lead; remind 1 working day before at 08:00; unless q"
      },
      {"on x: a; for Tom as Mate as Lead", "on x: a; for \"Tom as Mate\" as Lead"},
      {
        "on x: a; for \"The Anchor\" as \"the Rest\"", "on x: a; for \"The Anchor\" as \"the Rest\""
      },
      {"on x: a; for the \"as asked\" as Support", "on x: a; for the \"as asked\" as Support"},
    };
  }

  @Test(dataProvider = "spellings")
  public void hasOnePlainSpelling(String typed, String plain) {
    ChainReader.Reading reading =
        ChainReader.read("chain: c\nkey date: x\nask: q\n" + typed, RandomChains.ODD);
    assertThat(reading.faults()).isEmpty();
    assertThat(Spelling.of(reading.chain().orElseThrow().steps().get(0))).isEqualTo(plain);
  }

  @Test
  public void whatIsSpelledIsReadAgainAndSpelledTheSame() {
    SplittableRandom seeds = new SplittableRandom(19);
    for (int i = 0; i < CHAINS; i++) {
      long seed = seeds.nextLong();
      RandomChains chains = new RandomChains(new SplittableRandom(seed));
      Chain chain = chains.chain(8);
      String plain = Spelling.of(chain);
      for (String text : List.of(plain, chains.typed(chain))) {
        ChainReader.Reading reading = ChainReader.read(text, RandomChains.ODD);
        assertThat(reading.faults()).as("seed " + seed + "\n" + text).isEmpty();
        assertThat(reading.chain()).as("seed " + seed + "\n" + text).contains(chain);
        assertThat(Spelling.of(reading.chain().get())).as("seed " + seed).isEqualTo(plain);
      }
    }
  }

  /**
   * What is changed in a good text is told no later than there; or, where a name was made on the
   * changed line, where that is used.
   */
  @Test
  public void whatIsChangedIsToldWhereItWas() {
    SplittableRandom seeds = new SplittableRandom(20);
    int bad = 0;
    for (int i = 0; i < CHAINS; i++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      String[] lines = Spelling.of(new RandomChains(random).chain(6)).split("\n");
      int line = random.nextInt(lines.length);
      int[] chars = lines[line].codePoints().toArray();
      int at = random.nextInt(chars.length);
      lines[line] = changed(chars, at, random);
      String text = String.join("\n", lines);
      List<Fault> faults = ChainReader.read(text, RandomChains.ODD).faults();
      bad += faults.isEmpty() ? 0 : 1;
      String as =
          "seed "
              + seed
              + ", changed line "
              + (line + 1)
              + ", col "
              + (at + 1)
              + "\n"
              + text
              + "\n"
              + faults;
      boolean told =
          faults.isEmpty()
              || faults.stream()
                  .anyMatch(one -> one.line() == line + 1 && isNear(one, lines[line], chars, at))
              || faults.stream().allMatch(one -> one.line() == 1 && one.column() == 1)
              || faults.stream().allMatch(LanguageTest::isOfNames);
      assertThat(told).as(as).isTrue();
    }
    assertThat(bad).as("changes that made a fault").isGreaterThan(CHAINS / 4);
  }

  /**
   * There or before it or, where a name runs on, at the mark that it runs on to; a quote mark too
   * many or too few is matched with those behind it.
   */
  private static boolean isNear(Fault fault, String line, int[] good, int at) {
    int[] chars = line.codePoints().toArray();
    int next = at + 2;
    while (next < chars.length && ",:;\"".indexOf(chars[next]) < 0) {
      next++;
    }
    boolean isOfQuotes = good[at] == '"' || quotes(chars) != quotes(good);
    return isOfQuotes || fault.column() <= next + 1;
  }

  private static long quotes(int[] chars) {
    return IntStream.of(chars).filter(c -> c == '"').count();
  }

  private static boolean isOfNames(Fault fault) {
    return switch (fault.code()) {
      case NAME_UNKNOWN,
          NAME_TWICE,
          QUESTION_UNKNOWN,
          QUESTION_TWICE,
          HOURS_OF_DAY,
          LOOP,
          HEADER_LATE ->
          true;
      default -> false;
    };
  }

  private static String changed(int[] chars, int at, SplittableRandom random) {
    StringBuilder text = new StringBuilder();
    String put = ",:;\"#xX 9\u00a0\u201c";
    int kind = random.nextInt(4);
    for (int i = 0; i < chars.length; i++) {
      if (i != at || kind == 1) {
        text.appendCodePoint(chars[i]);
      }
      if (i == at && kind > 0) {
        text.append(put.charAt(random.nextInt(put.length())));
      }
    }
    return text.toString();
  }

  /** Nothing that is typed is too much, and each fault lies in the text. */
  @Test
  public void whateverIsTypedIsRead() {
    String[] pieces = {
      "chain: c\n",
      "key date: x\n",
      "ask: q, r\n",
      "28 days before x: ",
      "on ",
      "x",
      ": ",
      ", ",
      "; ",
      "\"",
      "for ",
      "the ",
      "as ",
      "Lead",
      "remind ",
      "2 ",
      "hours ",
      "before ",
      "at ",
      "9:00",
      "\n",
      "#",
      " # ",
      "only if ",
      "unless ",
      "q",
      "by ",
      "post",
      "back to a working day",
      "\u0000",
      "\u2028",
      "\ud800",
      "99999999999999999999",
      "-",
      ".",
      "“",
      "🛶",
      "\r",
      "\t",
      "\u00a0",
      "language: 1\n",
      "language: 2\n"
    };
    SplittableRandom seeds = new SplittableRandom(21);
    for (int i = 0; i < TEXTS; i++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      StringBuilder text = new StringBuilder();
      for (int n = random.nextInt(40); n > 0; n--) {
        text.append(pieces[random.nextInt(pieces.length)]);
      }
      ChainReader.Reading reading = ChainReader.read(text.toString(), RandomChains.ODD);
      assertThat(reading.chain().isEmpty())
          .as("seed " + seed)
          .isEqualTo(!reading.faults().isEmpty());
      String[] lines = text.toString().split("\r\n|\n|\r", -1);
      for (Fault fault : reading.faults()) {
        int line = fault.line() - 1;
        assertThat(line).as("seed " + seed + " " + fault).isLessThan(lines.length);
        assertThat(fault.column())
            .as("seed " + seed + " " + fault)
            .isBetween(1, lines[line].codePointCount(0, lines[line].length()) + 1);
      }
    }
  }

  /** A mend that is offered takes away the fault it is offered for. */
  @Test
  public void whatIsOfferedMends() {
    int mended = 0;
    for (Object[] one : new FaultsTest().examples()) {
      String[] lines = (FaultsTest.BEFORE + one[0]).split("\n");
      for (Fault fault : ChainReader.read(String.join("\n", lines), House.KNOWN).faults()) {
        if (fault.edit().isPresent()) {
          String[] after = lines.clone();
          after[fault.line() - 1] = with(lines[fault.line() - 1], fault.edit().get());
          assertThat(ChainReader.read(String.join("\n", after), House.KNOWN).faults())
              .as(fault + "\n" + String.join("\n", after))
              .noneMatch(
                  other ->
                      other.line() == fault.line()
                          && other.column() <= fault.column()
                          && other.code() == fault.code());
          mended++;
        }
      }
    }
    assertThat(mended).as("faults with a mend at hand").isGreaterThan(24);
  }

  static String with(String line, Fault.Edit edit) {
    int[] chars = line.codePoints().toArray();
    int begins = edit.column() - 1;
    int ends = begins + edit.length();
    return new String(chars, 0, begins)
        + edit.text()
        + new String(chars, ends, chars.length - ends);
  }

  @Test
  public void aLanguageNobodyKnowsStopsTheReading() {
    assertThat(ChainReader.read("chain c\nlanguage: 2\nnonsense", House.KNOWN).faults())
        .extracting(Fault::code)
        .containsExactly(Fault.Code.LANGUAGE);
  }

  @Test
  public void whatIsTooMuchIsToldWhereItBegins() {
    String head = "chain: c\nkey date: x\n";
    String step = "1 day after x: s%d\n";
    StringBuilder steps = new StringBuilder(head);
    for (int i = 1; i <= 201; i++) {
      steps.append(step.formatted(i));
    }
    assertThat(first(steps.toString())).startsWith("line 203, col 1: this is step 201");
    assertThat(first(head + "on x: " + "a".repeat(81))).startsWith("line 3, col 7: ");
    assertThat(first(head + "on x: a # " + "b".repeat(400))).startsWith("line 3, col 401: ");
    assertThat(first(head + "\n".repeat(500) + "#")).startsWith("line 501, col 1: ");
    assertThat(first("x".repeat(65_537))).startsWith("line 1, col 1: the text is too long");
    assertThat(first(head + "on x: a" + "; for the Lead".repeat(11)))
        .startsWith("line 3, col 150: more than 10");
  }

  private static String first(String text) {
    return ChainReader.read(text, House.KNOWN).faults().get(0).toString();
  }
}
