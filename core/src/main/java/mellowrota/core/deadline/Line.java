package mellowrota.core.deadline;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.deadline.Cursor.Placed;

/** One line that could be read, with the places of what may yet be wrong in it. */
sealed interface Line {

  int number();

  int column();

  /** What a header says. */
  enum Sort {
    LANGUAGE("language"),
    CHAIN("chain"),
    KEY_DATE("key date"),
    ASK("ask");

    final String word;

    Sort(String word) {
      this.word = word;
    }
  }

  /**
   * A header.
   *
   * @param names of a language none
   */
  record Header(int number, int column, Sort sort, List<Placed<Name>> names) implements Line {

    /** The first of a sort. */
    static Optional<Header> of(Sort sort, List<Header> all) {
      return all.stream().filter(one -> one.sort() == sort).findFirst();
    }
  }

  /** A step as it is being read. */
  final class OfStep implements Line {
    final int number;
    final int column;
    Optional<Step.Offset> offset = Optional.empty();
    int unit;
    Placed<Name> from;
    Optional<Step.By> by = Optional.empty();
    Placed<Name> method;
    Optional<Step.Roll> roll = Optional.empty();
    Optional<Placed<LocalTime>> at = Optional.empty();
    Placed<Name> name;
    final List<Who> who = new ArrayList<>();
    final List<Remind> reminders = new ArrayList<>();
    final List<If> conditions = new ArrayList<>();

    OfStep(int number, int column) {
      this.number = number;
      this.column = column;
    }

    @Override
    public int number() {
      return number;
    }

    @Override
    public int column() {
      return column;
    }

    Step step() {
      return new Step(
          name.value(),
          offset,
          from.value(),
          by,
          roll,
          at.map(Placed::value),
          who.stream().map(Who::said).toList(),
          reminders.stream().map(one -> one.said().value()).toList(),
          conditions.stream()
              .map(one -> new Step.Condition(one.wanted(), one.question().value()))
              .toList());
    }
  }

  /** For whom, with the places of both names. */
  record Who(boolean holding, Placed<Name> name, Optional<Placed<Name>> as) {
    Step.For said() {
      return new Step.For(holding, name.value(), as.map(Placed::value));
    }
  }

  /**
   * A reminder, placed at its number.
   *
   * @param at where its time stands; 0: it has none
   */
  record Remind(Placed<Step.Remind> said, int at) {}

  /** A condition, with the place of its question. */
  record If(boolean wanted, Placed<Name> question) {}
}
