package mellowrota.server.caldav;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.xml.namespace.QName;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.platform.Failures;
import mellowrota.server.platform.Problem;
import mellowrota.server.platform.ProblemWriter;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.HttpRequestHandler;
import org.w3c.dom.Element;

/** Answers everything under {@code /dav/}. One request sees one state of the store. */
@Component("caldav")
class CalDavServlet implements HttpRequestHandler {

  private static final Logger LOG = LoggerFactory.getLogger(CalDavServlet.class);
  private static final Set<String> READS =
      Set.of("OPTIONS", "GET", "HEAD", "PROPFIND", "PROPPATCH", "REPORT");
  private static final String METHODS = "OPTIONS, GET, HEAD, PROPFIND, PROPPATCH, REPORT";
  private static final String XML = "application/xml; charset=utf-8";

  private final Worlds worlds;
  private final Faces faces;
  private final Texts texts;
  private final Properties properties;
  private final Reports reports;
  private final ProblemWriter problems;
  private final TransactionTemplate snapshot;
  private final Clock clock;

  CalDavServlet(
      Worlds worlds,
      Faces faces,
      Texts texts,
      Properties properties,
      Reports reports,
      ProblemWriter problems,
      PlatformTransactionManager transactions,
      Clock clock) {
    this.worlds = worlds;
    this.faces = faces;
    this.texts = texts;
    this.properties = properties;
    this.reports = reports;
    this.problems = problems;
    this.clock = clock;
    this.snapshot = new TransactionTemplate(transactions);
    this.snapshot.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
  }

  /** What will be answered. */
  private record Answer(int status, String type, byte[] body, Map<String, String> headers) {
    static Answer xml(int status, byte[] body) {
      return new Answer(status, XML, body, Map.of());
    }
  }

  @Override
  public void handleRequest(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    response.setHeader("DAV", "1, 3, access-control, calendar-access");
    response.setHeader("Cache-Control", "private, no-cache");
    try {
      Optional<Element> body =
          request.getMethod().equals("GET") || request.getMethod().equals("HEAD")
              ? Optional.empty()
              : readBody(request);
      Answer answer = snapshot.execute(status -> answer(request, body));
      texts.keep();
      write(request, response, answer);
    } catch (Reports.BadToken bad) {
      write(
          request,
          response,
          Answer.xml(403, MultiStatus.error(Dav.dav("valid-sync-token"), MultiStatus.EMPTY)));
    } catch (Problem problem) {
      problems.write(response, problem);
    } catch (RuntimeException failure) {
      problems.write(response, told(request, failure));
    }
  }

  private static Problem told(HttpServletRequest request, RuntimeException failure) {
    Problem problem = Failures.problem(failure);
    if (Failures.isOurs(problem)) {
      LOG.error(
          "caldav failed method={} error={}",
          request.getMethod(),
          failure.getClass().getName(),
          failure);
    }
    return problem;
  }

  private static Optional<Element> readBody(HttpServletRequest request) throws IOException {
    boolean reads = List.of("PROPFIND", "PROPPATCH", "REPORT").contains(request.getMethod());
    if (!reads) {
      return Optional.empty();
    }
    try {
      return DavXml.read(request.getInputStream());
    } catch (mellowrota.server.platform.BodyLimit.TooLarge tooLarge) {
      throw tooLarge.problem();
    }
  }

  private Answer answer(HttpServletRequest request, Optional<Element> body) {
    World world = worlds.now();
    long id = Long.parseLong(SecurityContextHolder.getContext().getAuthentication().getName());
    Person person = world.person(PersonId.of(id));
    Tree tree = new Tree(world, person);
    String path = request.getRequestURI();
    boolean reads = READS.contains(request.getMethod());
    // Where nothing may be written it is told alike of what stands there and what does not.
    Tree.Node node =
        tree.at(path)
            .or(
                () ->
                    reads
                        ? Optional.empty()
                        : tree.at(path.substring(0, path.lastIndexOf('/') + 1)))
            .orElseThrow(Problem::notFound);
    return switch (request.getMethod()) {
      case "OPTIONS" -> new Answer(200, null, new byte[0], Map.of("Allow", METHODS));
      case "PROPFIND" -> propfind(request, tree, node, body);
      case "PROPPATCH" -> proppatch(path, body);
      case "REPORT" -> report(node, body);
      case "GET", "HEAD" -> get(request, node);
      default -> readOnly(path);
    };
  }

  /** A read-only calendar says which privilege is missing (RFC 3744 §7.1.1). */
  private static Answer readOnly(String path) {
    return Answer.xml(
        403,
        MultiStatus.error(
            Dav.dav("need-privileges"),
            out -> {
              MultiStatus.start(out, Dav.dav("resource"));
              MultiStatus.text(out, Dav.dav("href"), path);
              MultiStatus.start(out, Dav.dav("privilege"));
              MultiStatus.empty(out, Dav.dav("write"));
              out.writeEndElement();
              out.writeEndElement();
            }));
  }

  /** Refused property by property, as a 207 (RFC 4918 §9.2). */
  private static Answer proppatch(String path, Optional<Element> body) {
    Element root = body.orElseThrow(() -> Problem.badRequest(say("caldav.proppatch-needs-a-body")));
    List<QName> names = new ArrayList<>();
    for (Element action : DavXml.children(root)) {
      DavXml.child(action, Dav.dav("prop"))
          .ifPresent(prop -> DavXml.children(prop).forEach(p -> names.add(DavXml.name(p))));
    }
    MultiStatus answer = new MultiStatus();
    answer.refused(path, names);
    return Answer.xml(207, answer.done());
  }

  private Answer propfind(
      HttpServletRequest request, Tree tree, Tree.Node node, Optional<Element> body) {
    String depth = Optional.ofNullable(request.getHeader("Depth")).orElse("infinity");
    if (!List.of("0", "1", "infinity").contains(depth)) {
      throw Problem.badRequest(say("caldav.depth-must-be-0"));
    }
    if (depth.equals("infinity")) {
      return Answer.xml(
          403, MultiStatus.error(Dav.dav("propfind-finite-depth"), MultiStatus.EMPTY));
    }
    List<QName> asked =
        body.flatMap(root -> DavXml.child(root, Dav.dav("prop")))
            .map(prop -> DavXml.children(prop).stream().map(DavXml::name).distinct().toList())
            .orElse(List.of());
    boolean namesOnly = body.flatMap(root -> DavXml.child(root, Dav.dav("propname"))).isPresent();
    MultiStatus answer = new MultiStatus();
    if (node instanceof Tree.Item item) {
      Faces.Kept face = item(item);
      one(
          answer,
          Tree.href(item.calendar(), item.uid()),
          Properties.of(face, dataIf(asked)),
          asked,
          namesOnly);
      return Answer.xml(207, answer.done());
    }
    one(answer, href(tree, node), properties.of(tree, node), asked, namesOnly);
    if (depth.equals("1")) {
      children(answer, tree, node, asked, namesOnly);
    }
    return Answer.xml(207, answer.done());
  }

  private static List<QName> dataIf(List<QName> asked) {
    return asked.isEmpty() ? List.of(Dav.dav("getcontentlength")) : asked;
  }

  private void children(
      MultiStatus answer, Tree tree, Tree.Node node, List<QName> asked, boolean namesOnly) {
    if (node instanceof Tree.Home) {
      for (Tree.Collection calendar : tree.collections()) {
        one(answer, href(tree, calendar), properties.of(tree, calendar), asked, namesOnly);
      }
    } else if (node instanceof Tree.Collection calendar) {
      List<Faces.Kept> kept = faces.live(calendar.rendering().id());
      boolean data =
          asked.isEmpty()
              || asked.contains(Dav.CALENDAR_DATA)
              || asked.contains(Dav.dav("getcontentlength"));
      for (Faces.Kept face : data ? texts.with(calendar.rendering().id(), kept) : kept) {
        one(
            answer,
            Tree.href(calendar.calendar(), face.uid()),
            Properties.of(face, dataIf(asked)),
            asked,
            namesOnly);
      }
    } else if (node instanceof Tree.Root) {
      one(answer, Tree.PRINCIPALS, properties.of(tree, new Tree.Principals()), asked, namesOnly);
      one(answer, Tree.CALENDARS, properties.of(tree, new Tree.Home()), asked, namesOnly);
    } else if (node instanceof Tree.Principals) {
      one(
          answer,
          tree.principalHref(),
          properties.of(tree, new Tree.Principal()),
          asked,
          namesOnly);
    }
  }

  private static String href(Tree tree, Tree.Node node) {
    if (node instanceof Tree.Collection collection) {
      return Tree.href(collection.calendar());
    }
    if (node instanceof Tree.Principal) {
      return tree.principalHref();
    }
    return node instanceof Tree.Root
        ? Tree.ROOT
        : node instanceof Tree.Home ? Tree.CALENDARS : Tree.PRINCIPALS;
  }

  /** All properties where none is named; calendar data only where it is (RFC 4791 §9.6). */
  private static void one(
      MultiStatus answer,
      String href,
      Map<QName, MultiStatus.Content> all,
      List<QName> asked,
      boolean namesOnly) {
    if (asked.isEmpty()) {
      Map<QName, MultiStatus.Content> some = new LinkedHashMap<>(all);
      some.remove(Dav.CALENDAR_DATA);
      if (namesOnly) {
        some.replaceAll((name, content) -> MultiStatus.EMPTY);
      }
      answer.resource(href, some, List.of());
      return;
    }
    Map<QName, MultiStatus.Content> found = new LinkedHashMap<>();
    asked.stream().filter(all::containsKey).forEach(name -> found.put(name, all.get(name)));
    answer.resource(href, found, asked.stream().filter(name -> !all.containsKey(name)).toList());
  }

  private Faces.Kept item(Tree.Item item) {
    List<Faces.Kept> found =
        texts.with(item.rendering().id(), faces.byUid(item.rendering().id(), List.of(item.uid())));
    return found.stream().findFirst().orElseThrow(Problem::notFound);
  }

  private Answer get(HttpServletRequest request, Tree.Node node) {
    if (!(node instanceof Tree.Item item)) {
      String words = say("caldav.open-this-address-in");
      return new Answer(
          200, "text/plain; charset=utf-8", words.getBytes(StandardCharsets.UTF_8), Map.of());
    }
    Faces.Kept face = item(item);
    String tag = '"' + face.etag() + '"';
    Map<String, String> headers =
        Map.of("ETag", tag, "Last-Modified", HttpDates.format(face.modified()));
    String known = request.getHeader("If-None-Match");
    if (known != null && (known.equals("*") || known.contains(tag))) {
      return new Answer(304, null, new byte[0], headers);
    }
    return new Answer(
        200,
        "text/calendar; charset=utf-8; component=vevent",
        face.text().orElseThrow().getBytes(StandardCharsets.UTF_8),
        headers);
  }

  private Answer report(Tree.Node node, Optional<Element> body) {
    Element root = body.orElseThrow(() -> Problem.badRequest(say("caldav.report-needs-a-body")));
    if (!(node instanceof Tree.Collection calendar)) {
      return Answer.xml(403, MultiStatus.error(Dav.dav("supported-report"), MultiStatus.EMPTY));
    }
    QName name = DavXml.name(root);
    if (name.equals(Dav.dav("sync-collection"))) {
      return Answer.xml(207, reports.syncCollection(calendar, root));
    }
    if (name.equals(Dav.cal("calendar-multiget"))) {
      return Answer.xml(207, reports.multiget(calendar, root));
    }
    if (name.equals(Dav.cal("calendar-query"))) {
      return Answer.xml(207, reports.query(calendar, root));
    }
    if (name.equals(Dav.cal("free-busy-query"))) {
      String text = reports.freeBusy(calendar, root, clock.instant());
      return new Answer(
          200, "text/calendar; charset=utf-8", text.getBytes(StandardCharsets.UTF_8), Map.of());
    }
    return Answer.xml(403, MultiStatus.error(Dav.dav("supported-report"), MultiStatus.EMPTY));
  }

  private static void write(HttpServletRequest request, HttpServletResponse response, Answer answer)
      throws IOException {
    response.setStatus(answer.status());
    answer.headers().forEach(response::setHeader);
    if (answer.type() != null) {
      response.setContentType(answer.type());
    }
    if (answer.status() != 304) {
      response.setContentLength(answer.body().length);
      if (!request.getMethod().equals("HEAD")) {
        response.getOutputStream().write(answer.body());
      }
    }
  }
}
