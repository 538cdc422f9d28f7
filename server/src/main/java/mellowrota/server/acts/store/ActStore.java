package mellowrota.server.acts.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** Acts as they are kept. */
@Repository
@RequiredArgsConstructor
public class ActStore {

  private final EntityManager kept;

  /** An act that is to begin. */
  public record Beginning(
      Instant at,
      long actor,
      String kind,
      Optional<String> key,
      String bodyHash,
      Optional<Long> undoes) {}

  /**
   * Begins it, and tells the triggers which act is being done; empty where its key was used before
   * or what it undoes is undone. Native: HQL does not give the number of what is inserted unless it
   * is there.
   */
  public Optional<Long> begin(Beginning one) {
    return kept
        .unwrap(Session.class)
        .createNativeQuery(
            """
            with begun as (
              insert into act (at, actor, kind, idem_key, body_hash, undoes)
              values (:at, :actor, :kind, cast(:key as text), :hash, cast(:undoes as bigint))
              on conflict do nothing returning id)
            select id from begun where set_config('mellow.act', cast(id as text), true) is not null
            """,
            Long.class)
        .setParameter("at", one.at())
        .setParameter("actor", one.actor())
        .setParameter("kind", one.kind())
        .setParameter("key", one.key().orElse(null), String.class)
        .setParameter("hash", one.bodyHash())
        .setParameter("undoes", one.undoes().orElse(null), Long.class)
        .getResultList()
        .stream()
        .findFirst();
  }

  /** What was answered the first time. */
  public record First(long id, String bodyHash, String answer) {}

  public Optional<First> first(long actor, String key) {
    return kept
        .createQuery(
            "select id, bodyHash, answer from ActEntity where actor = :actor and idemKey = :key",
            First.class)
        .setParameter("actor", actor)
        .setParameter("key", key)
        .getResultList()
        .stream()
        .findFirst();
  }

  /** Gives somebody's last act a key and what is answered under it. */
  public void keyLast(long actor, String key, String bodyHash, String answer) {
    kept.createQuery(
            """
            update ActEntity set idemKey = :key, bodyHash = :hash, answer = :answer
            where id = (select max(one.id) from ActEntity one where one.actor = :actor)
            """)
        .setParameter("key", key)
        .setParameter("hash", bodyHash)
        .setParameter("answer", answer)
        .setParameter("actor", actor)
        .executeUpdate();
  }

  /** Keeps what is answered, and tells every server process. Native, as {@link #tell}. */
  public void answered(
      long act, String answer, String reason, String channel, Collection<String> notices) {
    kept.createNativeQuery(
            """
            update act set answer = :answer, reason = :reason
            from (select count(pg_notify(:channel, notice)) from unnest(:notices) n(notice)) told
            where id = :act
            """)
        .setParameter("answer", answer)
        .setParameter("reason", reason)
        .setParameter("channel", channel)
        .setParameter("notices", notices.toArray(String[]::new))
        .setParameter("act", act)
        .executeUpdate();
  }

  /** Tells every server process, at commit. Native: notices are the database's own. */
  public void tell(String channel, Collection<String> notices) {
    kept.unwrap(Session.class)
        .createNativeQuery(
            "select count(pg_notify(:channel, notice)) from unnest(:notices) n(notice)", Long.class)
        .setParameter("channel", channel)
        .setParameter("notices", notices.toArray(String[]::new))
        .getSingleResult();
  }

  public boolean isBy(long act, long actor) {
    return Optional.ofNullable(kept.find(ActEntity.class, act))
        .filter(one -> one.actor == actor)
        .isPresent();
  }

  /** Those of these that were taken back. */
  public Set<Long> undone(Collection<Long> acts) {
    return Set.copyOf(
        kept.createQuery(
                "select distinct undoes from ActEntity where holds(:acts, undoes)", Long.class)
            .setParameter("acts", acts.toArray(Long[]::new))
            .getResultList());
  }

  /** The newest; 0: none was done yet. */
  public long last() {
    return kept.createQuery("select coalesce(max(id), 0) from ActEntity", Long.class)
        .getSingleResult();
  }

  /** Whether something was settled by it that can be taken back. */
  public boolean settled(long act) {
    return kept.createQuery("select count(*) from ActRowEntity where act = :act", Long.class)
            .setParameter("act", act)
            .getSingleResult()
        > 0;
  }

  /**
   * What an act did to one row.
   *
   * @param keptIn the table
   * @param before as it was, in JSON; null: it was not there
   * @param after as it became; null: it is gone
   */
  public record Row(long act, String keptIn, String before, String after) {}

  /** What it did, in order. */
  public List<Row> rows(long act) {
    return kept
        .createQuery("from ActRowEntity where act = :act order by id", ActRowEntity.class)
        .setParameter("act", act)
        .getResultList()
        .stream()
        .map(ActRowEntity::row)
        .toList();
  }

  /** The first that each of these acts did, but for what follows by itself. */
  public List<Row> firstRows(Collection<Long> acts, int most) {
    return kept.createQuery(
            """
            select r.act, r.keptIn, r.before, r.after from (
              select id as id, act as act, keptIn as keptIn, before as before, after as after,
                row_number() over (partition by act order by id) as no
              from ActRowEntity
              where holds(:acts, act) and keptIn not in ('calendar', 'taken_row')) r
            where r.no <= :most order by r.id
            """,
            Row.class)
        .setParameter("acts", acts.toArray(Long[]::new))
        .setParameter("most", most)
        .getResultList();
  }

  /**
   * One change of a person, or of a team that they coordinate.
   *
   * @param standing before the act, and {@code right}; null where they were not there yet
   * @param team that began or ceased to be theirs; null where they themselves changed
   */
  public record Life(long act, String standing, String right, Long team, boolean began) {}

  /**
   * Each change of a person, or of a team that they coordinate, newest first. Native: HQL does not
   * look into JSON by the index.
   */
  public List<Life> life(long person) {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select act, before ->> 'standing', before ->> 'account_right', cast(null as bigint),
              before is null
            from act_row where kept_in = 'person' and coalesce(after, before) ->> 'id' = :person
            union all
            select act, null, null, cast(coalesce(after, before) ->> 'team' as bigint),
              before is null
            from act_row
            where kept_in = 'coordinates' and coalesce(after, before) ->> 'person' = :person
            order by 1 desc
            """,
            Life.class)
        .setParameter("person", Long.toString(person))
        .getResultList();
  }

  /**
   * An act that settled something.
   *
   * @param undid the kind of what it took back; null: it took nothing back
   */
  public record RemoteChanges(
      long id, Instant at, long actor, String kind, String undid, boolean undone) {}

  /** Those that somebody did before another, newest first. */
  public List<RemoteChanges> settling(long before, int most) {
    return kept.createQuery(
            """
            select a.id, a.at, a.actor, a.kind, b.kind,
              exists (select 1 from ActEntity u where u.undoes = a.id)
            from ActEntity a left join ActEntity b on b.id = a.undoes
            where a.id in (
              select r.act from ActRowEntity r join ActEntity o on o.id = r.act
              where r.act < :before and o.actor <> 0
              group by r.act order by r.act desc limit :most)
              or a.id in (
                select r.id from ActEntity r
                where r.id < :before and r.actor <> 0 and r.kind in ('rules.change', 'rules.undo')
                order by r.id desc limit :most)
            order by a.id desc
            """,
            RemoteChanges.class)
        .setParameter("before", before)
        .setParameter("most", most)
        .getResultList();
  }
}
