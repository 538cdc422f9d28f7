package mellowrota.core.work;

import java.util.Objects;

/** The name by which wordings and the API call a detail, such as {@code gate code}. */
public record DetailKey(String name) implements Comparable<DetailKey> {

  public static final DetailKey REF = new DetailKey("ref");
  public static final DetailKey TITLE = new DetailKey("title");
  public static final DetailKey PLACE = new DetailKey("place");
  public static final DetailKey TIMES = new DetailKey("times");
  public static final DetailKey PEOPLE = new DetailKey("people");
  public static final DetailKey MARGINS = new DetailKey("margins");
  public static final DetailKey TEAM = new DetailKey("team");
  public static final DetailKey TAGS = new DetailKey("tags");
  public static final DetailKey CONTACT = new DetailKey("contact");
  public static final DetailKey PHONE = new DetailKey("phone");
  public static final DetailKey GATE_CODE = new DetailKey("gate code");
  public static final DetailKey QUOTE = new DetailKey("quote");
  public static final DetailKey PARTS = new DetailKey("parts");
  public static final DetailKey NOTES = new DetailKey("notes");

  public DetailKey {
    Objects.requireNonNull(name, "name");
  }

  @Override
  public int compareTo(DetailKey other) {
    return name.compareTo(other.name);
  }
}
