package mellowrota.server.records;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import mellowrota.core.find.Piece;
import mellowrota.core.find.Reading;
import mellowrota.core.work.DetailSort;

/**
 * What was understood of a line, said as conditions of a query beside {@link OpenableRecords#SEEN}:
 * by what the asker may not see of a record they do not find it (SIGHT 9). Only what is asked for
 * is said, so that the database sees which index serves it.
 */
final class FoundBy {

  /** More words than these say nothing more. */
  private static final int MOST_TERMS = 16;

  /** A record must be like one of those of a sort. */
  private static final List<Class<? extends Piece>> SORTS =
      List.of(
          Piece.KindIs.class,
          Piece.StateIs.class,
          Piece.On.class,
          Piece.OfTeam.class,
          Piece.AtPlace.class,
          Piece.InRegion.class,
          Piece.OfChain.class);

  private static final LocalDateTime EARLIEST = LocalDate.of(1, 1, 1).atStartOfDay();
  private static final LocalDateTime LATEST = LocalDate.of(9999, 1, 1).atStartOfDay();

  private final ZoneId zone;
  private final Instant now;
  private final List<String> conditions = new ArrayList<>();
  private final List<Few> few = new ArrayList<>();
  private final Map<String, Object> values = new HashMap<>();

  /** A piece of the line counts before what is asked for of its sort beside it. */
  FoundBy(Reading reading, List<Piece> beside, ZoneId zone, Instant now) {
    this.zone = zone;
    this.now = now;
    List<Piece> said = reading.pieces().stream().map(Reading.Understood::piece).toList();
    for (Class<? extends Piece> sort : SORTS) {
      List<Piece> all = said.stream().filter(sort::isInstance).toList();
      add(all.isEmpty() ? beside.stream().filter(sort::isInstance).toList() : all);
    }
    said.stream()
        .filter(one -> !SORTS.contains(one.getClass()) && !isText(one))
        .forEach(one -> add(List.of(one)));
    said.stream().filter(FoundBy::isText).limit(MOST_TERMS).forEach(one -> add(List.of(one)));
  }

  /** That a record is like one of these; no condition where there are none. */
  private void add(List<Piece> pieces) {
    if (!pieces.isEmpty()) {
      conditions.add(pieces.stream().map(this::is).collect(Collectors.joining(" or ")));
      List<String> numbers = pieces.stream().flatMap(one -> numbers(one).stream()).toList();
      if (numbers.size() == pieces.size()) {
        few.add(
            new Few(
                String.join(" union all ", numbers),
                pieces.stream().anyMatch(Piece.When.class::isInstance)
                    ? Few.ANY_NUMBER
                    : Few.MOST_SPREAD));
      }
    }
  }

  private static boolean isText(Piece piece) {
    return piece instanceof Piece.Words
        || piece instanceof Piece.Near
        || piece instanceof Piece.Contact;
  }

  /** With {@link #values}. */
  String condition() {
    return conditions.isEmpty()
        ? "true"
        : conditions.stream().collect(Collectors.joining(")\nand (", "(", ")"));
  }

  /**
   * Records among which all lie that are found.
   *
   * @param numbers a question for their numbers, which indexes alone answer, whoever sees them
   * @param most how many are gathered first; where they are more, the first page is sooner found on
   *     the way
   */
  record Few(String numbers, int most) {

    /** Of what lies all over the time that the house has. */
    static final int MOST_SPREAD = 10_000;

    /** Of what lies in one piece of time, which is far from the beginning of most orders. */
    static final int ANY_NUMBER = Integer.MAX_VALUE;
  }

  List<Few> few() {
    return few;
  }

  Map<String, Object> values() {
    return values;
  }

  private String value(Object value) {
    String name = "found" + values.size();
    values.put(name, value);
    return ":" + name;
  }

  private String is(Piece piece) {
    if (piece instanceof Piece.Near near) {
      String text = value(like(near.text()));
      return IN_SIGHT.formatted(text, LIKE + text) + " or " + is(near.meant().piece());
    } else if (piece instanceof Piece.Words words) {
      String text = value(like(words.text()));
      return IN_SIGHT.formatted(text, inAnyForm(words, text));
    } else if (piece instanceof Piece.Contact contact) {
      return IN_DETAIL.formatted(
          "d.value ilike " + value(like(contact.text())) + " and d.key in ('contact', 'phone')");
    } else if (piece instanceof Piece.Valued valued) {
      String has = IN_DETAIL.formatted(has(valued));
      return valued.isSo()
          ? has
          : "not " + has + " and " + MAY_HAVE.formatted(value(keys(valued)[0]));
    }
    String seen = seen(piece);
    return seen.isEmpty() ? means(piece) : "sees." + seen + " and (" + means(piece) + ")";
  }

  /** Of which numbers those must be that are so; empty where no index tells. */
  private Optional<String> numbers(Piece piece) {
    if (piece instanceof Piece.Near near) {
      String text = value(like(near.text()));
      String meant = "select r.id from record r where " + means(near.meant().piece());
      return Optional.of(
          SOMEWHERE.formatted(text, LIKE + text)
              + " union all "
              + numbers(near.meant().piece()).orElse(meant));
    } else if (piece instanceof Piece.Words words) {
      String text = value(like(words.text()));
      return Optional.of(SOMEWHERE.formatted(text, inAnyForm(words, text)));
    } else if (piece instanceof Piece.Contact contact) {
      return Optional.of(
          "select d.record from detail d where d.value ilike " + value(like(contact.text())));
    } else if (piece instanceof Piece.Valued valued) {
      return valued.isSo()
          ? Optional.of("select d.record from detail d where " + has(valued))
          : Optional.empty();
    } else if (piece instanceof Piece.When when) {
      return when.from().isPresent() && when.until().isPresent()
          ? Optional.of(near(when))
          : Optional.empty();
    }
    return part(piece).map(Part::numbers);
  }

  /**
   * Rows of a table that belong to records and are so.
   *
   * @param alias of the table, in the condition
   */
  private record Part(String table, String alias, String condition) {
    String numbers() {
      return "select %1$s.record from %2$s %1$s where %3$s".formatted(alias, table, condition);
    }

    String exists() {
      return "exists (select 1 from %2$s %1$s where %1$s.record = r.id and (%3$s))"
          .formatted(alias, table, condition);
    }
  }

  private Optional<Part> part(Piece piece) {
    if (piece instanceof Piece.On on) {
      String role = on.role().map(one -> " and a.role = " + value(one.value())).orElse("");
      return Optional.of(
          new Part(
              "assignment",
              "a",
              "a.holder_kind = 'P' and a.holder = " + value(on.person().value()) + role));
    } else if (piece instanceof Piece.Tagged tag) {
      return Optional.of(
          new Part("tag", "g", "lower(g.tag) = " + value(tag.tag().toLowerCase(Locale.ROOT))));
    } else if (piece instanceof Piece.OfChain of) {
      return Optional.of(new Part(OF_CHAINS, "w", "w.chain = " + value(of.chain())));
    }
    return Optional.empty();
  }

  /** What of a record one must see to find it so. */
  private static String seen(Piece piece) {
    if (piece instanceof Piece.Ref) {
      return "ref";
    } else if (piece instanceof Piece.StateIs
        || piece instanceof Piece.Overdue
        || piece instanceof Piece.When) {
      return "times";
    } else if (piece instanceof Piece.On || piece instanceof Piece.Nobody) {
      return "people";
    } else if (piece instanceof Piece.OfTeam) {
      return "team";
    } else if (piece instanceof Piece.AtPlace || piece instanceof Piece.InRegion) {
      return "place";
    } else if (piece instanceof Piece.Tagged) {
      return "tags";
    } else if (piece instanceof Piece.OfChain) {
      return "office";
    }
    return "";
  }

  /** That {@code r} is so, whoever sees it. */
  private String means(Piece piece) {
    if (piece instanceof Piece.Ref ref) {
      return "r.ref = " + value(ref.ref());
    } else if (piece instanceof Piece.KindIs kind) {
      return "r.kind = " + value(kind.kind().name());
    } else if (piece instanceof Piece.StateIs state) {
      return "r.state = " + value(state.state().name());
    } else if (piece instanceof Piece.Overdue) {
      return OVERDUE.formatted(value(LocalDate.ofInstant(now, zone)), value(now));
    } else if (piece instanceof Piece.Nobody nobody) {
      String role = nobody.role().map(one -> "= " + value(one.value())).orElse("<> 3");
      return "not exists (select 1 from assignment a where a.record = r.id and a.role "
          + role
          + ")";
    } else if (piece instanceof Piece.OfTeam of) {
      return "r.team = " + value(of.team().value());
    } else if (piece instanceof Piece.AtPlace at) {
      return "r.place = %1$s or r.uses && array[%1$s]".formatted(value(at.place().value()));
    } else if (piece instanceof Piece.InRegion in) {
      return IN_REGION.formatted(value(in.region()));
    } else if (piece instanceof Piece.When when) {
      return when(when);
    }
    return part(piece).orElseThrow().exists();
  }

  private static final String OVERDUE =
      """
      r.state in ('TENTATIVE', 'CONFIRMED')
        and (r.due_day < %s or r.due_day is null and r.due_at <= %s)\
      """;

  private static final String IN_REGION =
      """
      r.place in (select p.id from place p where p.region = %1$s)
        or r.uses <> '{}' and r.uses && array(select p.id from place p where p.region = %1$s)\
      """;

  /** The deadlines of sets as they now are, and what they follow. */
  private static final String OF_CHAINS =
      """
      (select s.chain, w.record from deadline_set s
        join deadline_set_version v on v.deadline_set = s.id and v.no = s.no
        cross join lateral (
          select s.record union all select p.record from deadline_step p where p.version = v.id) w)\
      """;

  // ---- When ------------------------------------------------------------------------------------

  private String when(Piece.When when) {
    String due =
        """
        r.due_day >= %3$s and r.due_day < %4$s
          or r.due_day is null and r.due_at >= %1$s and r.due_at < %2$s\
        """;
    String condition =
        switch (when.edge()) {
          case DUE -> due;
          case ANY ->
              due
                  + " or "
                  + visit(
                      """
                      v.starts < %2$s and v.ends > %1$s
                        or v.date_from < %4$s and v.date_to > %3$s\
                      """);
          case BEGINS ->
              visit(
                  """
                  v.starts >= %1$s and v.starts < %2$s
                    or v.date_from >= %3$s and v.date_from < %4$s\
                  """);
          case ENDS ->
              visit(
                  """
                  v.ends > %1$s and v.ends <= %2$s or v.date_to > %3$s and v.date_to <= %4$s\
                  """);
        };
    return within(condition, when);
  }

  private static String visit(String condition) {
    return new Part("visit", "v", condition).exists();
  }

  /** Those with a time in it or at its edge; a day is over at its end, wherever that is. */
  private String near(Piece.When when) {
    String due =
        """
        select r.id from record r
          where r.due_at >= cast(%1$s as timestamptz) - interval '2 days'
            and r.due_at < cast(%2$s as timestamptz) + interval '2 days'\
        """;
    String visits =
        """
        select v.record from visit v
          where v.starts is not null and tstzrange(v.starts, v.ends, '[]')
            && tstzrange(cast(%1$s as timestamptz), cast(%2$s as timestamptz), '[]')
        union all
        select v.record from visit v where v.date_from <= %4$s and v.date_to >= %3$s\
        """;
    return within(
        switch (when.edge()) {
          case DUE -> due;
          case ANY -> due + " union all " + visits;
          case BEGINS, ENDS -> visits;
        },
        when);
  }

  private String within(String condition, Piece.When when) {
    LocalDateTime from = when.from().orElse(EARLIEST);
    LocalDateTime until = when.until().orElse(LATEST);
    return condition.formatted(
        value(from.atZone(zone).toInstant()),
        value(until.atZone(zone).toInstant()),
        value(from.toLocalDate()),
        value(until.minusNanos(1).toLocalDate().plusDays(1)));
  }

  // ---- Details and words -----------------------------------------------------------------------

  /** That the detail that {@code n} defines applies on {@code r}. */
  private static final String APPLIES =
      """
       r.kind = any(string_to_array(n.kinds, ','))
          and (n.states = '' or r.state = any(string_to_array(n.states, ','))
            or r.state = 'DONE' and r.state_before = any(string_to_array(n.states, ',')))\
      """;

  private static String[] keys(Piece.Valued valued) {
    return valued.details().stream().map(one -> one.key().name()).toArray(String[]::new);
  }

  /** That {@code d} is a value that is asked for, whoever sees it. */
  private String has(Piece.Valued valued) {
    String of = "d.key = any(" + value(keys(valued)) + ") and ";
    if (valued.test().isEmpty()) {
      return of + "d.value <> ''";
    }
    DetailSort sort = valued.details().get(0).sort();
    String sign =
        switch (valued.test().get()) {
          case OVER -> " > ";
          case UNDER -> " < ";
          case IS -> " = ";
        };
    return of
        + switch (sort) {
          case NUMBER, MONEY -> "number_of(d.value)" + sign + value(new BigDecimal(valued.than()));
          case DATE -> "d.value like '____-__-__' and d.value" + sign + value(valued.than());
          default -> "lower(d.value)" + sign + "lower(" + value(valued.than()) + ")";
        };
  }

  /**
   * A detail that the asker sees wherever its record says nothing else, on a record that has it.
   */
  private static final String MAY_HAVE =
      """
      exists (select 1 from detail_definition n where n.key = %s
          and (n.for_bits & me.bits) <> 0 and (n.for_bits & you.bits) <> 0
          and\
      """
          + APPLIES
          + ")";

  /** The details {@code d} of {@code r} that the asker, and whoever looks with their eyes, sees. */
  private static final String SEEN_DETAILS =
      """
      from detail d join detail_definition n on n.key = d.key
        where d.record = r.id and %s
          and (coalesce(d.for_bits, n.for_bits) & me.bits) <> 0
          and (coalesce(d.for_bits, n.for_bits) & you.bits) <> 0
          and\
      """
          + APPLIES;

  /** That one of them is so. */
  private static final String IN_DETAIL = "exists (select 1 " + SEEN_DETAILS + ")";

  /**
   * What a detail of {@code r} is sorted by, of which {@code :by} is the name, where it is seen.
   */
  static String sortedBy(DetailSort sort) {
    String value =
        switch (sort) {
          case NUMBER, MONEY -> "number_of(d.value)";
          case DATE -> "case when d.value like '____-__-__' then d.value end";
          default -> "nullif(lower(d.value), '')";
        };
    return "(select " + value + " " + SEEN_DETAILS.formatted("d.key = :by") + ")";
  }

  private static final String IN_SIGHT =
      "("
          + IN_DETAIL.formatted("(%2$s)")
          + """
           or sees.ref and r.ref ilike %1$s
          or sees.place and exists (select 1 from place p
            where (p.id = r.place or p.id = any(r.uses)) and (p.name ilike %1$s or p.code ilike %1$s))
          or sees.tags and exists (select 1 from tag g where g.record = r.id and g.tag ilike %1$s)
          or sees.people and exists (select 1 from assignment a join person q on q.id = a.holder
            where a.record = r.id and a.holder_kind = 'P' and q.name ilike %1$s))\
          """;

  /** Wider, and read off indexes alone: where the text may stand, whoever sees it. */
  private static final String SOMEWHERE =
      """
      select d.record from detail d where %2$s
      union all select r.id from record r where r.ref ilike %1$s
      union all select r.id from record r
        where r.place in (select p.id from place p where p.name ilike %1$s or p.code ilike %1$s)
      union all select r.id from record r
        where r.uses <> '{}' and r.uses && array(
          select p.id from place p where p.name ilike %1$s or p.code ilike %1$s)
      union all select g.record from tag g where g.tag ilike %1$s
      union all select a.record from assignment a where a.holder_kind = 'P'
        and a.holder in (select q.id from person q where q.name ilike %1$s)\
      """;

  /** Before what a text must be like. */
  private static final String LIKE = "d.value ilike ";

  private static final Pattern WORD = Pattern.compile("\\p{L}{4,}");

  /** Letters that all forms of a word begin with. */
  private static final int STEADY = 3;

  /**
   * That a text stands in {@code d}, or another form of it where it is an English word, by
   * PostgreSQL's own full text. First letters are looked for before that, which is sooner done.
   */
  private String inAnyForm(Piece.Words words, String text) {
    String there = LIKE + text;
    return words.asTyped() || !WORD.matcher(words.text()).matches()
        ? there
        : "%s or d.value ilike %s and to_tsvector('english', d.value) @@ plainto_tsquery('english', %s)"
            .formatted(there, value(like(words.text().substring(0, STEADY))), value(words.text()));
  }

  /** That stands somewhere in a text of the database. */
  private static String like(String text) {
    return "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
  }
}
