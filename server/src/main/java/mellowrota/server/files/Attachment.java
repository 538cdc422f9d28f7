package mellowrota.server.files;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** An answer that is kept as a file. */
public final class Attachment {

  public static final MediaType CSV = MediaType.parseMediaType("text/csv;charset=utf-8");
  public static final MediaType ICALENDAR = MediaType.parseMediaType("text/calendar;charset=utf-8");
  public static final MediaType TEXT = MediaType.parseMediaType("text/plain;charset=utf-8");

  private Attachment() {}

  /** A text under a name, which may hold any letters (RFC 6266). */
  public static ResponseEntity<String> of(String name, MediaType type, String body) {
    return ResponseEntity.ok()
        .contentType(type)
        .header(
            "Content-Disposition",
            ContentDisposition.attachment()
                .filename(name, StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(body);
  }
}
