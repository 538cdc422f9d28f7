package mellowrota.server.accounts;

import com.nulabinc.zxcvbn.StandardDictionaries;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;

/** The passwords that whoever guesses tries first: the list of a package, some ten thousands. */
final class CommonPasswords {

  private static final Set<String> ALL = read();

  private CommonPasswords() {}

  static boolean holds(String password) {
    return ALL.contains(password.toLowerCase(Locale.ROOT));
  }

  private static Set<String> read() {
    try {
      return new HashSet<>(StandardDictionaries.PASSWORDS_LOADER.load().getFrequencies());
    } catch (IOException broken) {
      throw new UncheckedIOException(broken);
    }
  }
}
