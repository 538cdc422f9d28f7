package mellowrota.server.ical;

import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.sight.Alarm;
import mellowrota.core.sight.Face;
import mellowrota.core.time.LocalTimes;
import net.fortuna.ical4j.model.ParameterList;
import net.fortuna.ical4j.model.Property;
import net.fortuna.ical4j.model.component.Daylight;
import net.fortuna.ical4j.model.component.Observance;
import net.fortuna.ical4j.model.component.Standard;
import net.fortuna.ical4j.model.component.VAlarm;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.component.VTimeZone;
import net.fortuna.ical4j.model.parameter.Cn;
import net.fortuna.ical4j.model.parameter.RelType;
import net.fortuna.ical4j.model.parameter.Related;
import net.fortuna.ical4j.model.parameter.Role;
import net.fortuna.ical4j.model.parameter.TzId;
import net.fortuna.ical4j.model.property.Attendee;
import net.fortuna.ical4j.model.property.Categories;
import net.fortuna.ical4j.model.property.Clazz;
import net.fortuna.ical4j.model.property.Description;
import net.fortuna.ical4j.model.property.DtEnd;
import net.fortuna.ical4j.model.property.DtStamp;
import net.fortuna.ical4j.model.property.DtStart;
import net.fortuna.ical4j.model.property.Geo;
import net.fortuna.ical4j.model.property.LastModified;
import net.fortuna.ical4j.model.property.Location;
import net.fortuna.ical4j.model.property.ProdId;
import net.fortuna.ical4j.model.property.RefreshInterval;
import net.fortuna.ical4j.model.property.RelatedTo;
import net.fortuna.ical4j.model.property.Sequence;
import net.fortuna.ical4j.model.property.Status;
import net.fortuna.ical4j.model.property.Summary;
import net.fortuna.ical4j.model.property.Transp;
import net.fortuna.ical4j.model.property.Trigger;
import net.fortuna.ical4j.model.property.TzName;
import net.fortuna.ical4j.model.property.TzOffsetFrom;
import net.fortuna.ical4j.model.property.TzOffsetTo;
import net.fortuna.ical4j.model.property.Uid;
import net.fortuna.ical4j.model.property.Url;
import net.fortuna.ical4j.model.property.immutable.ImmutableAction;
import net.fortuna.ical4j.model.property.immutable.ImmutableVersion;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Writes one entry as a calendar object resource (RFC 4791 §4.1). The same face always gives the
 * same octets: DTSTAMP and LAST-MODIFIED come from the act, never from the reading.
 */
@Component
public class IcalendarWriter {

  /** Under which a record is opened by the identity of one of its entries (LANDING 19). */
  static final String HOME = "/open/";

  private static final String PRODUCT = "-//Mellow Rota//Mellow Rota//EN";

  /** How often a program that subscribes should ask again (RFC 7986 §5.7). */
  private static final Duration REFRESH = Duration.ofMinutes(15);

  /**
   * A face with its identity and the moment of its last change.
   *
   * @param parent the identity of what it belongs to
   * @param opens whether all who read it may open its record
   */
  public record Written(
      String uid,
      int sequence,
      Instant modified,
      Face face,
      Optional<String> parent,
      boolean opens) {

    /** Of which nobody is led anywhere. */
    public Written(String uid, int sequence, Instant modified, Face face) {
      this(uid, sequence, modified, face, Optional.empty(), false);
    }
  }

  /** Where this house is reached, without a slash at its end; blank: nobody has said. */
  private final String address;

  public IcalendarWriter(@Value("${mellow.home}") String address) {
    this.address = address.replaceAll("/+$", "");
  }

  /** Zones and years that are met again and again; more than these are written anew. */
  private static final int MOST_ZONES = 500;

  private final Map<Observances, String> zones = new ConcurrentHashMap<>();

  /** The text of one, lines folded and ended as RFC 5545 §3.1 says. */
  public String write(Written one) {
    return text(List.of(), List.of(one));
  }

  /** Many faces as one calendar, for programs that subscribe to it. */
  public String writeAll(List<Written> all) {
    RefreshInterval refresh = new RefreshInterval(new ParameterList(), REFRESH);
    refresh.add(net.fortuna.ical4j.model.parameter.Value.DURATION);
    return text(List.of(refresh), all);
  }

  private String text(List<Property> about, List<Written> all) {
    StringBuilder out = new StringBuilder("BEGIN:VCALENDAR\r\n");
    out.append(new ProdId(PRODUCT)).append(ImmutableVersion.VERSION_2_0);
    about.forEach(out::append);
    zones(all).forEach(out::append);
    all.forEach(one -> out.append(event(one)));
    return Folding.refold(out.append("END:VCALENDAR\r\n").toString());
  }

  /** Each zone once, with the observances of all times that are in it. */
  private List<String> zones(List<Written> all) {
    Map<ZoneId, EntryTimes.Timed> spans = new LinkedHashMap<>();
    for (Written one : all) {
      if (one.face().times() instanceof EntryTimes.Timed timed && !isFixed(timed)) {
        spans.merge(timed.start().getZone(), timed, IcalendarWriter::hull);
      }
    }
    if (zones.size() > MOST_ZONES) {
      zones.clear();
    }
    return spans.entrySet().stream()
        .map(one -> observances(one.getKey(), one.getValue()))
        .map(one -> zones.computeIfAbsent(one, made -> zone(made).toString()))
        .toList();
  }

  private static EntryTimes.Timed hull(EntryTimes.Timed one, EntryTimes.Timed other) {
    return new EntryTimes.Timed(
        one.start().isBefore(other.start()) ? one.start() : other.start(),
        one.end().isAfter(other.end()) ? one.end() : other.end());
  }

  private static boolean isFixed(EntryTimes.Timed timed) {
    return timed.start().getZone().getRules().isFixedOffset();
  }

  private VEvent event(Written one) {
    Face face = one.face();
    VEvent event = new VEvent(false);
    event.add(new Uid(one.uid()));
    Instant at = one.modified().truncatedTo(java.time.temporal.ChronoUnit.SECONDS);
    event.add(new DtStamp(at));
    event.add(new LastModified(at));
    event.add(new Sequence(one.sequence()));
    times(event, face.times());
    one.parent().ifPresent(parent -> event.add(childOf(parent)));
    event.add(new Summary(summary(face)));
    if (!face.place().isEmpty()) {
      event.add(new Location(face.place()));
    }
    face.position().ifPresent(on -> event.add(new Geo(on.latitude() + ";" + on.longitude())));
    if (one.opens() && !face.bare() && !address.isEmpty()) {
      event.add(new Url(URI.create(address + HOME + one.uid())));
    }
    String text = CopyText.withOwnTimes(face);
    if (!text.isEmpty()) {
      event.add(new Description(text));
    }
    if (!face.categories().isEmpty()) {
      event.add(new Categories(String.join(",", face.categories())));
    }
    event.add(new Status(face.marks().tentative() ? "TENTATIVE" : "CONFIRMED"));
    event.add(new Transp(face.marks().busy() ? "OPAQUE" : "TRANSPARENT"));
    event.add(new Clazz(Clazz.VALUE_PUBLIC));
    invited(event, face.attendees());
    face.alarms().forEach(alarm -> event.add(alarm(alarm, face)));
    return event;
  }

  /** RFC 5545 §3.8.4.5. */
  private static RelatedTo childOf(String parent) {
    RelatedTo related = new RelatedTo(parent);
    related.add(RelType.PARENT);
    return related;
  }

  /**
   * Names without addresses: RFC 5545 §3.3.3 lets a calendar user be any URI. Who organises it is
   * not told, since nobody is to answer: the entry is published, not an invitation (RFC 5546 §1.4).
   */
  private static void invited(VEvent event, List<mellowrota.core.sight.Attendee> attendees) {
    for (mellowrota.core.sight.Attendee one : attendees) {
      Attendee attendee = new Attendee(URI.create("urn:uuid:" + one.id()));
      attendee.add(new Cn(one.name()));
      attendee.add(one.informed() ? Role.NON_PARTICIPANT : Role.REQ_PARTICIPANT);
      event.add(attendee);
    }
  }

  /** Rings with the title (RFC 5545 §3.6.6). */
  private static VAlarm alarm(Alarm one, Face face) {
    Trigger trigger = new Trigger(new ParameterList(), one.before().negated());
    if (one.fromEnd()) {
      trigger.add(Related.END);
    }
    VAlarm alarm = new VAlarm();
    alarm.add(trigger);
    alarm.add(ImmutableAction.DISPLAY);
    alarm.add(new Description(summary(face)));
    return alarm;
  }

  /** Of all that goes with the times only the tick stands in words, at level all (LANDING 18). */
  private static String summary(Face face) {
    return face.marks().tick() && !face.bare() ? CopyText.TICK + face.title() : face.title();
  }

  private static void times(VEvent event, EntryTimes times) {
    if (times instanceof EntryTimes.AllDay allDay) {
      event.add(new DtStart<LocalDate>(allDay.days().first()));
      event.add(new DtEnd<LocalDate>(allDay.days().until()));
      return;
    }
    EntryTimes.Timed timed = (EntryTimes.Timed) times;
    if (isFixed(timed)) {
      event.add(new DtStart<Instant>(timed.start().toInstant()));
      event.add(new DtEnd<Instant>(timed.end().toInstant()));
      return;
    }
    event.add(
        isSecond(timed.start())
            ? new DtStart<Instant>(timed.start().toInstant())
            : local(new DtStart<java.time.LocalDateTime>(), timed.start()));
    event.add(
        isSecond(timed.end())
            ? new DtEnd<Instant>(timed.end().toInstant())
            : local(new DtEnd<java.time.LocalDateTime>(), timed.end()));
  }

  /** A local time that exists twice means the first (RFC 5545 §3.3.5), so the other is in UTC. */
  private static boolean isSecond(ZonedDateTime time) {
    return !LocalTimes.isTold(time);
  }

  private static <T extends Property> T local(T property, ZonedDateTime time) {
    property.add(new TzId(time.getZone().getId()));
    property.setValue(Times.local(time.toLocalDateTime()));
    return property;
  }

  /**
   * What a zone says of some years.
   *
   * @param before the offset that holds before the first change, where nothing tells otherwise
   */
  private record Observances(
      ZoneId zone, Optional<ZoneOffset> before, List<ZoneOffsetTransition> changes) {}

  /**
   * The observances that hold from before the start until after the end, each with its exact onset
   * (RFC 5545 §3.6.5), so that the offsets are those the times were resolved with.
   */
  private static Observances observances(ZoneId zone, EntryTimes.Timed timed) {
    ZoneRules rules = zone.getRules();
    List<ZoneOffsetTransition> changes = new ArrayList<>();
    ZoneOffsetTransition before =
        rules.previousTransition(timed.start().toInstant().plusSeconds(1));
    // One onset more than needed: some readers take an event soon after the first for before it.
    ZoneOffsetTransition earlier =
        before == null ? null : rules.previousTransition(before.getInstant());
    ZoneOffsetTransition next = earlier == null ? before : earlier;
    if (next == null) {
      next = rules.nextTransition(timed.start().toInstant().minusSeconds(1));
    }
    Instant last = timed.end().toInstant().plusSeconds(366L * 86_400);
    while (next != null && next.getInstant().isBefore(last)) {
      changes.add(next);
      next = rules.nextTransition(next.getInstant());
    }
    return new Observances(
        zone,
        before == null ? Optional.of(rules.getOffset(timed.start().toInstant())) : Optional.empty(),
        changes);
  }

  private static VTimeZone zone(Observances all) {
    ZoneId zone = all.zone();
    VTimeZone component = new VTimeZone();
    component.add(new net.fortuna.ical4j.model.property.TzId(zone.getId()));
    all.before()
        .ifPresent(
            offset -> component.add(observance(new Standard(), "19700101T000000", offset, offset)));
    for (ZoneOffsetTransition onset : all.changes()) {
      Observance observance =
          zone.getRules().isDaylightSavings(onset.getInstant()) ? new Daylight() : new Standard();
      component.add(
          observance(
              observance,
              Times.local(onset.getDateTimeBefore()),
              onset.getOffsetBefore(),
              onset.getOffsetAfter()));
    }
    return component;
  }

  private static Observance observance(
      Observance observance, String start, ZoneOffset from, ZoneOffset to) {
    DtStart<java.time.LocalDateTime> onset = new DtStart<>();
    onset.setValue(start);
    observance.add(onset);
    observance.add(new TzOffsetFrom(from));
    observance.add(new TzOffsetTo(to));
    observance.add(new TzName(to.equals(ZoneOffset.UTC) ? "UTC" : to.getId()));
    return observance;
  }
}
