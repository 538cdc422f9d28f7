package mellowrota.server.accounts;

import java.util.List;

/** Accounts of the made-up house, which anybody may try where it is laid. */
public final class DemoAccounts {

  public static final String PASSWORD = "still-water";

  /** Those that the sign-in page offers. */
  static final List<String> OFFERED =
      List.of("hana", "marguerite", "ines", "tam", "wren").stream()
          .map(name -> name + "@quillwater.example")
          .toList();

  private DemoAccounts() {}
}
