package mellowrota.server.incoming;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class NamesTest {

  private static Names<Integer> names() {
    Names<Integer> names = new Names<>("place");
    names.put("Lock 7, Thornmere Flight", 7);
    names.put("Quill Weir", 1);
    names.put("Quill Weir, upper gate", 2);
    names.put("Osier Basin", 3);
    names.put("OB", 3);
    names.put("Twice", 4);
    names.put("twice", 5);
    return names;
  }

  @DataProvider
  public Object[][] found() {
    return new Object[][] {
      {"Quill Weir", 1}, {"quill  weir ", 1}, {"OB", 3}, {"osier basin", 3},
    };
  }

  @Test(dataProvider = "found")
  public void caseAndSpacesDoNotMatter(String name, int thing) throws Exception {
    assertThat(names().find(name)).isEqualTo(thing);
  }

  @DataProvider
  public Object[][] near() {
    return new Object[][] {
      {"Osier Basn", Optional.of("Osier Basin")},
      {"Lock 7", Optional.of("Lock 7, Thornmere Flight")},
      {"Quil Weir", Optional.of("Quill Weir")},
      {"Town hall", Optional.empty()},
      {"X", Optional.empty()},
    };
  }

  @Test(dataProvider = "near")
  public void anUnknownNameSaysWhatMayBeMeant(String name, Optional<String> near) {
    assertThatThrownBy(() -> names().find(name))
        .isInstanceOfSatisfying(
            Names.Unknown.class, unknown -> assertThat(unknown.near()).isEqualTo(near))
        .hasMessageContaining("is not a known place");
  }

  @Test
  public void aNameOfTwoIsNobodys() {
    assertThatThrownBy(() -> names().find("TWICE")).hasMessageContaining("is the name of 2");
  }

  @DataProvider
  public Object[][] cells() {
    return new Object[][] {
      {"", List.of()},
      {"Quill Weir", List.of("Quill Weir")},
      {"Lock 7, Thornmere Flight", List.of("Lock 7, Thornmere Flight")},
      {"OB, Quill Weir", List.of("OB", "Quill Weir")},
      {"Lock 7, Thornmere Flight; OB ;", List.of("Lock 7, Thornmere Flight", "OB")},
      {"OB\nQuill Weir", List.of("OB", "Quill Weir")},
    };
  }

  @Test(dataProvider = "cells")
  public void aCellHoldsOneNameOrSeveral(String cell, List<String> names) {
    assertThat(names().parted(cell)).isEqualTo(names);
  }
}
