package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.net.URI;
import java.time.Clock;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.sight.Face;
import mellowrota.core.sync.Content;
import mellowrota.server.ical.CopyText;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import org.springframework.stereotype.Component;

/**
 * Shows that a calendar can be written: a test entry is written, changed, read back and taken off
 * again, whatever comes of it in between.
 */
@Component
@RequiredArgsConstructor
class WriteTest {

  private final Host host;
  private final IcalendarWriter writer;
  private final Clock clock;

  /** One step, with what was sent and what was read back. */
  record Step(String what, boolean good, String sent, String read) {}

  List<Step> of(Host.Account account, URI calendar, ZoneId zone) throws OutsideFault {
    String uid = UUID.randomUUID().toString();
    URI href = URI.create(calendar + uid + ".ics");
    List<Step> steps = new ArrayList<>();
    try {
      String first = text(uid, 0, say("links.test-entry"), zone);
      host.create(account, href, first);
      Optional<Host.Standing> standing = host.get(account, href);
      steps.add(step("written", uid, first, standing, zone));
      if (standing.isPresent()) {
        String second = text(uid, 1, say("links.test-entry-changed"), zone);
        host.change(account, href, second, standing.get().etag());
        steps.add(step("changed", uid, second, host.get(account, href), zone));
      }
    } finally {
      host.delete(account, href, Optional.empty());
    }
    boolean off = host.get(account, href).isEmpty();
    steps.add(new Step("removed", off, "", ""));
    return steps;
  }

  private String text(String uid, int sequence, String title, ZoneId zone) {
    ZonedDateTime start =
        clock.instant().atZone(zone).truncatedTo(ChronoUnit.HOURS).plusHours(1 + sequence);
    Face face =
        new Face(
            title,
            say("links.test-place"),
            say("links.test-text"),
            new EntryTimes.Timed(start, start.plusMinutes(30)),
            new Entry.Marks(false, false, false, false, false),
            List.of());
    return writer.write(new IcalendarWriter.Written(uid, sequence, clock.instant(), face));
  }

  private static Step step(
      String what, String uid, String sent, Optional<Host.Standing> standing, ZoneId zone) {
    Content ours = CopyText.read(sent, uid, zone).orElseThrow().content();
    Optional<Content> there =
        standing.flatMap(one -> CopyText.read(one.text(), uid, zone)).map(CopyText.Read::content);
    return new Step(
        what,
        there.filter(ours::agrees).isPresent(),
        words(ours),
        there.map(WriteTest::words).orElse("nothing"));
  }

  private static String words(Content content) {
    EntryTimes.Timed timed = (EntryTimes.Timed) content.times();
    return "%s · %s · %s · %s to %s"
        .formatted(
            content.title(),
            content.place(),
            content.text().replace('\n', ' '),
            timed.start().toLocalDateTime(),
            timed.end().toLocalTime());
  }
}
