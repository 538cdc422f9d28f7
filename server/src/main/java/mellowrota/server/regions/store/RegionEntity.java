package mellowrota.server.regions.store;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.server.crew.Weeks;
import mellowrota.server.regions.Regions;

/** A region with its holidays. */
@Entity
@Table(name = "region")
final class RegionEntity {

  /** One day of it. */
  @Embeddable
  record HolidayRow(LocalDate day, String name, boolean half) {}

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String name;
  String week;

  @ElementCollection(fetch = FetchType.EAGER)
  @CollectionTable(name = "holiday", joinColumns = @JoinColumn(name = "region"))
  Set<HolidayRow> holidays = new HashSet<>();

  void become(
      String newName, Optional<WorkingWeek> newWeek, Collection<WorkingDays.Holiday> newHolidays) {
    name = newName;
    week = newWeek.map(Weeks::kept).orElse(null);
    Set<HolidayRow> rows =
        newHolidays.stream()
            .map(one -> new HolidayRow(one.day(), one.name(), one.half()))
            .collect(Collectors.toSet());
    holidays.retainAll(rows);
    holidays.addAll(rows);
  }

  Regions.Kept region() {
    List<WorkingDays.Holiday> days =
        holidays.stream()
            .sorted(Comparator.comparing(HolidayRow::day))
            .map(one -> new WorkingDays.Holiday(one.day(), one.name(), one.half()))
            .toList();
    return new Regions.Kept(id, name, Optional.ofNullable(week).map(Weeks::of), days);
  }
}
