package mellowrota.server.platform;

import java.util.Locale;
import java.util.ResourceBundle;

/** The server's sentences, which stand in {@code words/<feature>.properties}. */
public final class Words {

  private Words() {}

  /**
   * A sentence.
   *
   * @param name its feature and its name there, as {@code cover.is-already-on-it}
   * @param with what stands in it, in order, as {@link String#format} takes it
   * @throws java.util.MissingResourceException where there is none of that name
   */
  public static String say(String name, Object... with) {
    int dot = name.indexOf('.');
    String sentence =
        ResourceBundle.getBundle("words." + name.substring(0, dot), Locale.ROOT)
            .getString(name.substring(dot + 1));
    return with.length == 0 ? sentence : sentence.formatted(with);
  }
}
