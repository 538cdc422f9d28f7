package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Locale;
import lombok.RequiredArgsConstructor;
import mellowrota.core.find.Names;
import mellowrota.core.find.Piece;
import mellowrota.core.find.Reading;
import mellowrota.core.people.Person;
import mellowrota.server.platform.Asker;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What a line that finds is understood as, over HTTP. */
@RestController
@RequiredArgsConstructor
class FindController {

  private final Finding finding;
  private final Worlds worlds;

  @Schema(name = "FindPiece")
  record PieceView(
      @Schema(description = "Where it begins in the line, in UTF-16 units") int from,
      @Schema(description = "Where it ends") int until,
      FindWords.Sort sort,
      @Schema(description = "What it asks for, in words") String said,
      @Schema(description = "The name that it is near to, and finds by too")
          @Nullable String meant) {}

  @Schema(name = "FindChoice")
  record ChoiceView(
      Names.Sort sort,
      String name,
      @Schema(description = "What to write in its place, so that it is understood so")
          String text) {}

  @Schema(name = "FindOffer")
  record OfferView(int from, int until, List<ChoiceView> choices) {}

  @Schema(name = "FindReading")
  record ReadingView(
      List<PieceView> pieces,
      @Schema(description = "Where more than one reading fits; none of them was taken")
          List<OfferView> offers,
      @Schema(description = "How its last words may go on, and where they begin")
          OfferView completions) {}

  @GetMapping("/api/v1/find")
  @Operation(summary = "What a line that finds is understood as")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ReadingView read(Asker asker, @RequestParam(defaultValue = "") String line) {
    RecordList.requireLine(line);
    World world = worlds.now();
    Person me = world.person(asker.person());
    Names names = finding.names(world, me);
    Reading reading = finding.read(world, names, line);
    FindWords words = new FindWords(world, names);
    Finding.Completions going = Finding.completions(names, line);
    return new ReadingView(
        reading.pieces().stream().map(one -> piece(words.told(one.piece()), one)).toList(),
        reading.offers().stream()
            .map(
                one ->
                    new OfferView(
                        one.from(),
                        one.until(),
                        one.names().stream().map(name -> choice(names, name)).toList()))
            .toList(),
        new OfferView(
            going.from(),
            line.length(),
            going.names().stream().map(name -> choice(names, name)).toList()));
  }

  private static PieceView piece(FindWords.Told told, Reading.Understood one) {
    return new PieceView(
        one.from(),
        one.until(),
        told.sort(),
        told.said(),
        one.piece() instanceof Piece.Near near ? near.meant().name() : null);
  }

  private static ChoiceView choice(Names names, Names.Named one) {
    boolean alone =
        names.all().stream().filter(it -> it.name().equalsIgnoreCase(one.name())).count() == 1;
    String text = one.name().replace(",", "");
    return new ChoiceView(
        one.sort(),
        one.name(),
        alone
            ? text
            : say("records.what-it-is-" + one.sort().name().toLowerCase(Locale.ROOT), text));
  }
}
