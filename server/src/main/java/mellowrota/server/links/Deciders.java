package mellowrota.server.links;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.sync.Deciding;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.links.store.LinkStore;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Keeps in force whoever decides in which outside calendars somebody's own is copied. */
@Component
@RequiredArgsConstructor
class Deciders {

  private final CopyStore copies;
  private final HouseStore house;
  private final LinkStore links;

  /** By person, whose word holds; who is not named has nothing linked. */
  Map<PersonId, Deciding> all() {
    Map<PersonId, Deciding> found = new LinkedHashMap<>();
    boolean locked = isLocked();
    rows()
        .forEach(
            (person, rows) -> found.put(PersonId.of(person), Deciding.of(locked, outlets(rows))));
    return found;
  }

  /** Whether the house keeps it to itself. */
  boolean isLocked() {
    return house.copying().decidedBy() == HouseStore.DecidedBy.HOUSE;
  }

  private static List<Deciding.Outlet> outlets(List<LinkStore.Own> rows) {
    return rows.stream()
        .map(
            row ->
                new Deciding.Outlet(row.outlet(), row.ofTheHouse(), !row.open(), row.overruled()))
        .toList();
  }

  /** Where each person's own calendar is written, by links that are not being ended. */
  private Map<Long, List<LinkStore.Own>> rows() {
    return links.own().stream()
        .collect(
            Collectors.groupingBy(LinkStore.Own::person, LinkedHashMap::new, Collectors.toList()));
  }

  /** Takes out what is overruled by now, and lets in what no longer is. */
  @Transactional
  public void some() {
    boolean locked = isLocked();
    for (List<LinkStore.Own> rows : rows().values()) {
      Deciding now = Deciding.of(locked, outlets(rows));
      for (LinkStore.Own row : rows) {
        boolean overruled = now.overruled().contains(row.outlet());
        if (overruled != row.overruled()) {
          links.overrule(row.outlet(), overruled);
          copies.openAnew(row.outlet());
        }
      }
    }
  }
}
