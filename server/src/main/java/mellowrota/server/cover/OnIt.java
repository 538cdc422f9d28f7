package mellowrota.server.cover;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.Visit;
import mellowrota.core.work.WorkRecord;

/** A visit and somebody on it. */
record OnIt(WorkRecord record, Visit visit, PersonId person, RoleId role, Instant given) {

  /** Roles whose work takes their holder's time. */
  private static final Set<RoleId> TAKES_TIME = Set.of(RoleId.LEAD, RoleId.SUPPORT);

  static boolean takesTime(RoleId role) {
    return TAKES_TIME.contains(role);
  }

  static String id(WorkRecord record, Visit visit) {
    return record.id().value() + "/" + visit.no();
  }

  /** Done work counts as confirmed. */
  static boolean isTentative(WorkRecord record, Visit visit) {
    return !record.isDone() && record.tentative(visit.no());
  }

  /** Each person in each role; teams take nobody's time. */
  static List<OnIt> all(WorkRecord record) {
    List<OnIt> found = new ArrayList<>();
    for (Assignment one : record.assignments()) {
      if (one.holder() instanceof Holder.OnePerson holder) {
        record
            .visit(one.visit())
            .ifPresent(
                visit ->
                    found.add(new OnIt(record, visit, holder.person(), one.role(), one.givenAt())));
      }
    }
    return found;
  }

  /** Whose time a visit takes. */
  static Set<PersonId> takingPart(WorkRecord record, int visit) {
    return all(record).stream()
        .filter(one -> one.visit().no() == visit && one.takesTime())
        .map(OnIt::person)
        .collect(Collectors.toSet());
  }

  boolean takesTime() {
    return takesTime(role) && !record.free();
  }

  boolean isTentative() {
    return isTentative(record, visit);
  }

  Ask.OfVisit ask() {
    return new Ask.OfVisit(record.id().value(), visit.no());
  }

  String id() {
    return id(record, visit);
  }

  /** All-day work takes the local day. */
  Optional<TimeSpan> span(ZoneId zone) {
    return visit.when().map(when -> when.in(zone));
  }
}
