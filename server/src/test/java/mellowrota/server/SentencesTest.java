package mellowrota.server;

import static java.util.stream.Collectors.toSet;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.BinaryTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ConditionalExpressionTree;
import com.sun.source.tree.ExpressionTree;
import com.sun.source.tree.IdentifierTree;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.tree.NewClassTree;
import com.sun.source.tree.Tree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreeScanner;
import java.io.IOException;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** What the server says to people stands in its word files, and all that stands there is said. */
public class SentencesTest {

  private static final Path SOURCES = Path.of("src/main/java");
  private static final Path WORDS = Path.of("src/main/resources/words");

  /** Three words of prose; what has other signs is a query, a header, a format. */
  private static final Pattern SENTENCE =
      Pattern.compile(
          " ?[\\p{L}“][\\p{L}\\p{N}%'’,.;:“”()…–/-]* [\\p{L}%]+[,;:]? [\\p{L}\\p{N}%'’ ,.;:“”()…–/-]+");

  /** Clauses of queries read as prose. */
  private static final Pattern QUERY =
      Pattern.compile(
          "(?i)\\b(order by|limit|from \\w+Entity|exists|select|join)\\b|: ?\\w+ |:\\w+$");

  /** Where it is told to whoever runs or changes the program. */
  private static final Set<String> TOLD_ELSEWHERE =
      Set.of(
          "info",
          "warn",
          "error",
          "debug",
          "header",
          "setHeader",
          "createQuery",
          "createNativeQuery");

  /** What a disk says, and a list of methods. */
  private static final Set<String> NO_WORDS =
      Set.of("No space left", "OPTIONS, GET, HEAD, PROPFIND, PROPPATCH, REPORT");

  private final Map<String, String> kept = new HashMap<>();
  private final Map<String, Integer> said = new HashMap<>();
  private final List<String> outside = new ArrayList<>();

  @BeforeClass
  public void read() throws IOException {
    try (Stream<Path> files = Files.list(WORDS)) {
      for (Path file : files.toList()) {
        Properties words = new Properties();
        try (Reader text = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
          words.load(text);
        }
        String feature = file.getFileName().toString().replace(".properties", ".");
        words.stringPropertyNames().forEach(n -> kept.put(feature + n, words.getProperty(n)));
      }
    }
    JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
    try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, null);
        Stream<Path> files = Files.walk(SOURCES)) {
      List<Path> sources =
          files.filter(file -> file.toString().endsWith(".java")).filter(this::isOfPeople).toList();
      JavacTask task =
          (JavacTask)
              compiler.getTask(
                  null,
                  manager,
                  null,
                  List.of("-proc:none"),
                  null,
                  manager.getJavaFileObjectsFromPaths(sources));
      for (CompilationUnitTree unit : task.parse()) {
        new Sentences(Path.of(unit.getSourceFile().toUri()).getFileName().toString())
            .scan(unit, null);
      }
    }
  }

  /** The demo's world is data. */
  private boolean isOfPeople(Path file) {
    return !file.toString().contains("/demo/");
  }

  private final class Sentences extends TreeScanner<Void, Void> {

    private final String file;

    private Sentences(String file) {
      this.file = file;
    }

    @Override
    public Void visitAnnotation(AnnotationTree annotation, Void nothing) {
      return null;
    }

    @Override
    public Void visitNewClass(NewClassTree made, Void nothing) {
      String type = made.getIdentifier().toString();
      boolean ofProgrammers =
          type.endsWith("Exception") || type.endsWith("Error") || type.equals("Unopenable");
      return ofProgrammers ? null : super.visitNewClass(made, nothing);
    }

    @Override
    public Void visitMethodInvocation(MethodInvocationTree call, Void nothing) {
      String method = call.getMethodSelect().toString();
      String last = method.substring(method.lastIndexOf('.') + 1);
      if (call.getMethodSelect() instanceof IdentifierTree && last.equals("say")) {
        ExpressionTree name = call.getArguments().get(0);
        name(name, call.getArguments().size() - 1);
        call.getArguments().stream().skip(1).forEach(with -> scan(with, null));
        return null;
      }
      return TOLD_ELSEWHERE.contains(last) || last.equals("super")
          ? null
          : super.visitMethodInvocation(call, nothing);
    }

    private void name(ExpressionTree name, int with) {
      if (name instanceof ConditionalExpressionTree either) {
        name(either.getTrueExpression(), with);
        name(either.getFalseExpression(), with);
      } else if (name instanceof BinaryTree joined) {
        String start = (String) ((LiteralTree) joined.getLeftOperand()).getValue();
        kept.keySet().stream()
            .filter(one -> one.startsWith(start))
            .forEach(one -> said.put(one, with));
      } else if (name.getKind() == Tree.Kind.STRING_LITERAL) {
        said.put((String) ((LiteralTree) name).getValue(), with);
      }
    }

    /** Tables of closed sets are word files of their own. */
    private void add(String text) {
      if (!file.endsWith("Words.java")
          && !file.equals("TargetTerm.java")
          && !NO_WORDS.contains(text)) {
        outside.add(file + ": " + text);
      }
    }

    @Override
    public Void visitLiteral(LiteralTree literal, Void nothing) {
      if (literal.getValue() instanceof String text) {
        if (kept.containsKey(text)) {
          said.putIfAbsent(text, 0);
        } else if (SENTENCE.matcher(text).matches() && !QUERY.matcher(text).find()) {
          add(text);
        }
      }
      return null;
    }
  }

  @Test
  public void noSentenceStandsInCode() {
    assertThat(outside).isEmpty();
  }

  @Test
  public void whatIsSaidIsThereWithAsMuchAsStandsInIt() {
    assertThat(said).hasSizeGreaterThan(300);
    assertThat(kept.keySet()).containsAll(said.keySet());
    said.forEach(
        (name, with) ->
            assertThat(kept.get(name).split("%s", -1))
                .as(name + ": " + kept.get(name))
                .hasSize(with + 1));
  }

  @Test
  public void allThatIsThereIsSaid() {
    assertThat(kept.keySet().stream().filter(name -> !said.containsKey(name)).collect(toSet()))
        .isEmpty();
  }
}
