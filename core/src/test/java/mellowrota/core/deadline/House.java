package mellowrota.core.deadline;

import java.util.List;
import java.util.stream.Stream;

/** The house of the examples. */
final class House {

  static final Known KNOWN =
      new Known(
          List.of(
              new Method(Name.of("post"), 2, Unit.WORKING_DAYS),
              new Method(Name.of("hand"), 0, Unit.DAYS),
              new Method(Name.of("courier"), 1, Unit.DAYS),
              new Method(Name.of("mail"), 4, Unit.HOURS),
              new Method(Name.of("ship"), 1, Unit.MONTHS)),
          names("Lead", "Support", "Supervisor", "Informed"),
          names(
              "Duty Office",
              "Marguerite Pell",
              "Priya Lund",
              "Thornmere crew",
              "Saltgate crew",
              "Upper Quill crew",
              "Bank and Dredging"));

  private House() {}

  private static List<Name> names(String... names) {
    return Stream.of(names).map(Name::of).toList();
  }
}
