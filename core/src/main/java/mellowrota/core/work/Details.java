package mellowrota.core.work;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.ForSet;

/** The details of a house, in the order in which screens list them. */
public final class Details {

  private final Map<DetailKey, DetailDefinition> byKey = new LinkedHashMap<>();
  private final Map<Kind, List<DetailDefinition>> byKind = new EnumMap<>(Kind.class);

  /** What margins are computed from as well. */
  private final Set<DetailKey> underMargins;

  private Details(Collection<DetailDefinition> definitions, Set<DetailKey> underMargins) {
    this.underMargins = underMargins;
    for (DetailDefinition definition : definitions) {
      byKey.put(definition.key(), definition);
      for (Kind kind : definition.kinds()) {
        byKind.computeIfAbsent(kind, key -> new ArrayList<>()).add(definition);
      }
    }
  }

  public static Details of(Collection<DetailDefinition> definitions) {
    return new Details(definitions, Set.of());
  }

  /** The same in a house that settles margins: they are for whom all is for that they come from. */
  public Details with(MarginSettings margins) {
    return new Details(byKey.values(), margins.restOn());
  }

  /** The details of a new house and whom they are for. */
  public static List<DetailDefinition> usual() {
    Set<Kind> all = Set.copyOf(Arrays.asList(Kind.values()));
    return List.of(
        new DetailDefinition(DetailKey.REF, "Ref", all, ForSet.CREW, false),
        new DetailDefinition(DetailKey.TITLE, "Title", all, ForSet.EVERYONE, true),
        new DetailDefinition(DetailKey.PLACE, "Place", all, ForSet.EVERYONE, false),
        new DetailDefinition(DetailKey.TIMES, "Times", all, ForSet.EVERYONE, false),
        new DetailDefinition(DetailKey.MARGINS, "Margins", Set.of(Kind.JOB), ForSet.CREW, false),
        new DetailDefinition(DetailKey.PEOPLE, "People", all, ForSet.CREW, false),
        new DetailDefinition(DetailKey.CONTACT, "Contact", all, ForSet.PEOPLE_ON_IT, true),
        new DetailDefinition(DetailKey.PHONE, "Phone", all, ForSet.PEOPLE_ON_IT, true),
        new DetailDefinition(
            DetailKey.GATE_CODE,
            "Gate code",
            all,
            ForSet.of(mellowrota.core.people.RoleId.LEAD),
            true),
        new DetailDefinition(DetailKey.PARTS, "Parts", Set.of(Kind.JOB), ForSet.CREW, true),
        new DetailDefinition(
            DetailKey.NOTES,
            "Notes",
            all,
            ForSet.CREW,
            true,
            DetailSort.NOTES,
            List.of(),
            Set.of(),
            ""),
        new DetailDefinition(DetailKey.QUOTE, "Quote", all, ForSet.OFFICE, true));
  }

  /** All of them, in order. */
  public List<DetailDefinition> all() {
    return List.copyOf(byKey.values());
  }

  public Optional<DetailDefinition> find(DetailKey key) {
    return Optional.ofNullable(byKey.get(key));
  }

  /** The details this kind has, of which a calendar sees "n of m". */
  public List<DetailDefinition> of(Kind kind) {
    return byKind.getOrDefault(kind, List.of());
  }

  /** Whether the detail means anything on this record; what no house defines always does. */
  public boolean applies(WorkRecord record, DetailKey key) {
    DetailDefinition definition = byKey.get(key);
    return definition == null || definition.appliesTo(record);
  }

  /** Whom the detail is for on this record; a detail without a set is for office. */
  public ForSet forWhom(WorkRecord record, DetailKey key) {
    ForSet set = settledFor(record, key);
    if (key.equals(DetailKey.MARGINS)) {
      for (DetailKey under : underMargins) {
        set = set.intersection(settledFor(record, under));
      }
    }
    return set;
  }

  private ForSet settledFor(WorkRecord record, DetailKey key) {
    DetailValue own = record.details().get(key);
    if (own != null && own.forWhom().isPresent()) {
      return own.forWhom().get();
    }
    return forWhom(key);
  }

  /** Whom the detail is for where a record says nothing else. */
  public ForSet forWhom(DetailKey key) {
    DetailDefinition definition = byKey.get(key);
    if (definition == null) {
      return key.equals(DetailKey.TEAM) || key.equals(DetailKey.TAGS) ? ForSet.CREW : ForSet.OFFICE;
    }
    return definition.forWhom();
  }
}
