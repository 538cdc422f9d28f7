package mellowrota.server.caldav;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.RenderingId;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Gives faces their iCalendar text, made at the first reading and kept. */
@Component
@RequiredArgsConstructor
class Texts {

  private final Faces faces;
  private final IcalendarWriter writer;
  private final Worlds worlds;
  private final TransactionTemplate transaction;
  private final ThreadLocal<List<Made>> waiting = ThreadLocal.withInitial(ArrayList::new);

  private record Made(RenderingId rendering, List<Faces.Kept> faces) {}

  /** The same faces, each with its text. */
  List<Faces.Kept> with(RenderingId rendering, List<Faces.Kept> kept) {
    List<Faces.Kept> all = new ArrayList<>(kept.size());
    List<Faces.Kept> made = new ArrayList<>();
    boolean opens = worlds.now().calendars().opens(rendering);
    for (Faces.Kept face : kept) {
      if (!face.live() || face.text().isPresent()) {
        all.add(face);
        continue;
      }
      Faces.Kept with = written(face, opens);
      made.add(with);
      all.add(with);
    }
    if (!made.isEmpty()) {
      waiting.get().add(new Made(rendering, made));
    }
    return all;
  }

  /** Keeps the texts this thread made, once its snapshot has ended. */
  void keep() {
    List<Made> all = waiting.get();
    waiting.remove();
    if (!all.isEmpty()) {
      transaction.executeWithoutResult(
          status -> all.forEach(made -> faces.keepTexts(made.rendering(), made.faces())));
    }
  }

  private Faces.Kept written(Faces.Kept face, boolean opens) {
    String text = writer.write(face.written(opens));
    return new Faces.Kept(
        face.entry(),
        face.uid(),
        true,
        face.content(),
        face.etag(),
        face.sequence(),
        face.modified(),
        face.changeNo(),
        Optional.of(text));
  }
}
