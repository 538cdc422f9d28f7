package mellowrota.server.links;

import java.time.ZoneId;
import mellowrota.core.sync.Content;
import mellowrota.server.ical.CopyText;

/**
 * What should stand there; it is read only where it has to be compared.
 *
 * @param tag of the face that it is
 */
record WantedEntry(String tag, String text, String uid) {
  Content content(ZoneId zone) {
    return CopyText.read(text, uid, zone).orElseThrow().content();
  }
}
