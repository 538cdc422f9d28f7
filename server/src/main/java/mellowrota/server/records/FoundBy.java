package mellowrota.server.records;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import mellowrota.core.find.Piece;
import mellowrota.core.find.Reading;
import mellowrota.core.people.RoleId;
import org.hibernate.query.NativeQuery;

/**
 * What was understood of a line, said as a condition of a query beside {@link
 * OpenableRecords#SEEN}: by what the asker may not see of a record they do not find it (SIGHT 9).
 */
final class FoundBy {

  /** More words than these say nothing more. */
  private static final int MOST_TERMS = 16;

  /** In any role; of nobody, in any that does the work. */
  private static final int IN_ANY = -1;

  private static final LocalDateTime EARLIEST = LocalDate.of(1, 1, 1).atStartOfDay();
  private static final LocalDateTime LATEST = LocalDate.of(9999, 1, 1).atStartOfDay();

  /** Beside the parameters of {@link #give}. */
  static final String CONDITION =
      """
      (cardinality(:kinds) = 0 or r.kind = any(:kinds))
      and (cardinality(:states) = 0 or sees.times and r.state = any(:states))
      and (not :overdue or sees.times and r.state in ('TENTATIVE', 'CONFIRMED')
        and (r.due_day < :today or r.due_day is null and r.due_at <= :now))
      and (cardinality(:places) = 0
        or sees.place and (r.place = any(:places) or r.uses && :places))
      and (cardinality(:teamsOf) = 0 or sees.team and r.team = any(:teamsOf))
      and (cardinality(:persons) = 0 or sees.people and exists (
        select 1 from unnest(:persons, :roles) as p(person, role) join assignment a
          on a.record = r.id and a.holder_kind = 'P' and a.holder = p.person
            and (p.role < 0 or a.role = p.role)))
      and not exists (select 1 from unnest(:vacant) as v(role) where not sees.people or exists (
        select 1 from assignment a where a.record = r.id
          and (a.role = v.role or v.role < 0 and a.role <> 3)))
      and not exists (select 1 from unnest(:tags) as t(tag) where not sees.tags or not exists (
        select 1 from tag g where g.record = r.id and lower(g.tag) = t.tag))
      and not exists (select 1 from unnest(:refs) as t(ref) where not sees.ref or r.ref <> t.ref)
      and not exists (
        select 1 from unnest(:edges, :starts, :ends, :firsts, :untils)
          as w(edge, starts, ends, first_day, until_day)
        where not sees.times or not coalesce(
          w.edge in ('ANY', 'DUE')
            and (r.due_day >= cast(w.first_day as date) and r.due_day < cast(w.until_day as date)
              or r.due_day is null and r.due_at >= cast(w.starts as timestamptz)
                and r.due_at < cast(w.ends as timestamptz))
          or w.edge <> 'DUE' and exists (select 1 from visit v where v.record = r.id and case w.edge
            when 'ANY' then v.starts < cast(w.ends as timestamptz)
                and v.ends > cast(w.starts as timestamptz)
              or v.date_from < cast(w.until_day as date) and v.date_to > cast(w.first_day as date)
            when 'BEGINS' then v.starts >= cast(w.starts as timestamptz)
                and v.starts < cast(w.ends as timestamptz)
              or v.date_from >= cast(w.first_day as date) and v.date_from < cast(w.until_day as date)
            else v.ends > cast(w.starts as timestamptz) and v.ends <= cast(w.ends as timestamptz)
              or v.date_to > cast(w.first_day as date) and v.date_to <= cast(w.until_day as date)
            end), false))
      and not exists (select 1 from unnest(:terms, :onlyIn, :orPerson, :orPlace, :orTeam)
        as t(term, only_in, person, place, team) where not (
        sees.people and exists (select 1 from assignment a
          where a.record = r.id and a.holder_kind = 'P' and a.holder = t.person)
        or sees.place and (r.place = t.place or t.place = any(r.uses)) is true
        or sees.team and (r.team = t.team) is true
        or t.only_in = '' and sees.ref and r.ref ilike t.term
        or exists (select 1 from detail d join detail_definition n on n.key = d.key
          where d.record = r.id and d.value ilike t.term
            and (t.only_in = '' or d.key in ('contact', 'phone'))
            and (coalesce(d.for_bits, n.for_bits) & me.bits) <> 0
            and (coalesce(d.for_bits, n.for_bits) & you.bits) <> 0
            and r.kind = any(string_to_array(n.kinds, ','))
            and (n.states = '' or r.state = any(string_to_array(n.states, ','))
              or r.state = 'DONE' and r.state_before = any(string_to_array(n.states, ','))))
        or t.only_in = '' and sees.place and exists (select 1 from place p
          where (p.id = r.place or p.id = any(r.uses))
            and (p.name ilike t.term or p.code ilike t.term))
        or t.only_in = '' and sees.tags and exists (select 1 from tag g
          where g.record = r.id and g.tag ilike t.term)
        or t.only_in = '' and sees.people and exists (
          select 1 from assignment a join person q on q.id = a.holder
          where a.record = r.id and a.holder_kind = 'P' and q.name ilike t.term)))
      """;

  private final List<Piece> pieces;
  private final RecordList.Wanted wanted;

  /** A piece of the line counts before what is asked for of its sort beside it. */
  FoundBy(Reading reading, RecordList.Wanted wanted) {
    pieces = reading.pieces().stream().map(Reading.Understood::piece).toList();
    this.wanted = wanted;
  }

  private <P extends Piece> Stream<P> all(Class<P> sort) {
    return pieces.stream().filter(sort::isInstance).map(sort::cast);
  }

  private <P extends Piece, T> List<T> or(Class<P> sort, Function<P, T> value, Stream<T> beside) {
    List<T> said = all(sort).map(value).distinct().toList();
    return said.isEmpty() ? beside.toList() : said;
  }

  <T> NativeQuery<T> give(NativeQuery<T> query, ZoneId zone, Instant now) {
    query
        .setParameter(
            "kinds",
            or(Piece.KindIs.class, p -> p.kind().name(), wanted.kind().stream().map(Enum::name))
                .toArray(String[]::new))
        .setParameter(
            "states",
            or(Piece.StateIs.class, p -> p.state().name(), wanted.states().stream().map(Enum::name))
                .toArray(String[]::new))
        .setParameter("overdue", all(Piece.Overdue.class).findAny().isPresent())
        .setParameter("now", now)
        .setParameter("today", LocalDate.ofInstant(now, zone))
        .setParameter(
            "places",
            or(Piece.AtPlace.class, p -> p.place().value(), wanted.place().stream().boxed())
                .toArray(Long[]::new))
        .setParameter(
            "teamsOf",
            or(Piece.OfTeam.class, p -> p.team().value(), wanted.team().stream().boxed())
                .toArray(Long[]::new))
        .setParameter("tags", texts(Piece.Tagged.class, p -> p.tag().toLowerCase(Locale.ROOT)))
        .setParameter("refs", texts(Piece.Ref.class, Piece.Ref::ref));
    people(query);
    times(query, zone);
    words(query);
    return query;
  }

  private <P extends Piece> String[] texts(Class<P> sort, Function<P, String> text) {
    return all(sort).map(text).distinct().toArray(String[]::new);
  }

  private void people(NativeQuery<?> query) {
    List<Piece.On> on = all(Piece.On.class).toList();
    if (on.isEmpty()) {
      Long[] beside = wanted.person().stream().boxed().toArray(Long[]::new);
      query.setParameter("persons", beside);
      query.setParameter("roles", Stream.of(beside).map(one -> IN_ANY).toArray(Integer[]::new));
    } else {
      query.setParameter("persons", on.stream().map(p -> p.person().value()).toArray(Long[]::new));
      query.setParameter(
          "roles",
          on.stream().map(p -> p.role().map(RoleId::value).orElse(IN_ANY)).toArray(Integer[]::new));
    }
    query.setParameter(
        "vacant",
        all(Piece.Nobody.class)
            .map(p -> p.role().map(RoleId::value).orElse(IN_ANY))
            .toArray(Integer[]::new));
  }

  private void times(NativeQuery<?> query, ZoneId zone) {
    List<Piece.When> all = all(Piece.When.class).toList();
    query.setParameter("edges", all.stream().map(p -> p.edge().name()).toArray(String[]::new));
    List<LocalDateTime> starts = all.stream().map(p -> p.from().orElse(EARLIEST)).toList();
    List<LocalDateTime> ends = all.stream().map(p -> p.until().orElse(LATEST)).toList();
    query.setParameter("starts", instants(starts, zone));
    query.setParameter("ends", instants(ends, zone));
    query.setParameter(
        "firsts", starts.stream().map(at -> at.toLocalDate().toString()).toArray(String[]::new));
    query.setParameter(
        "untils",
        ends.stream()
            .map(at -> at.minusNanos(1).toLocalDate().plusDays(1).toString())
            .toArray(String[]::new));
  }

  private static String[] instants(List<LocalDateTime> times, ZoneId zone) {
    return times.stream().map(at -> at.atZone(zone).toInstant().toString()).toArray(String[]::new);
  }

  private void words(NativeQuery<?> query) {
    List<Term> terms =
        pieces.stream().flatMap(one -> Term.of(one).stream()).limit(MOST_TERMS).toList();
    query
        .setParameter("terms", terms.stream().map(Term::pattern).toArray(String[]::new))
        .setParameter("onlyIn", terms.stream().map(Term::onlyIn).toArray(String[]::new))
        .setParameter("orPerson", terms.stream().map(Term::person).toArray(Long[]::new))
        .setParameter("orPlace", terms.stream().map(Term::place).toArray(Long[]::new))
        .setParameter("orTeam", terms.stream().map(Term::team).toArray(Long[]::new));
  }

  /** Words, and by what else a record that lacks them is found; 0: by nothing. */
  private record Term(String pattern, String onlyIn, long person, long place, long team) {
    static Optional<Term> of(Piece piece) {
      if (piece instanceof Piece.Words words) {
        return Optional.of(new Term(FoundBy.pattern(words.text()), "", 0, 0, 0));
      } else if (piece instanceof Piece.Contact contact) {
        return Optional.of(new Term(FoundBy.pattern(contact.text()), "contact", 0, 0, 0));
      } else if (piece instanceof Piece.Near near) {
        Piece meant = near.meant().piece();
        return Optional.of(
            new Term(
                FoundBy.pattern(near.text()),
                "",
                meant instanceof Piece.On on ? on.person().value() : 0,
                meant instanceof Piece.AtPlace at ? at.place().value() : 0,
                meant instanceof Piece.OfTeam of ? of.team().value() : 0));
      }
      return Optional.empty();
    }
  }

  /** That stands somewhere in a text of the database. */
  private static String pattern(String text) {
    return "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
  }
}
