package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import mellowrota.server.platform.Problem;

/** What asks for people, as it is named: a duty, or one visit of a record. */
sealed interface Ask {

  /** A duty. */
  record OfDuty(long duty) implements Ask {
    @Override
    public String key() {
      return DUTY + duty;
    }
  }

  /** One visit of a record that wants so many people. */
  record OfVisit(long record, int visit) implements Ask {
    @Override
    public String key() {
      return RECORD + record + "/" + visit;
    }
  }

  String DUTY = "duty:";
  String RECORD = "record:";

  String key();

  /** Reads what {@link #key} wrote; anything else is a bad request. */
  static Ask of(String key) {
    try {
      if (key.startsWith(DUTY)) {
        return new OfDuty(Long.parseLong(key.substring(DUTY.length())));
      }
      int visit = key.indexOf('/');
      if (key.startsWith(RECORD) && visit > 0) {
        return new OfVisit(
            Long.parseLong(key.substring(RECORD.length(), visit)),
            Integer.parseInt(key.substring(visit + 1)));
      }
    } catch (NumberFormatException e) {
      throw unknown(key);
    }
    throw unknown(key);
  }

  private static Problem unknown(String key) {
    return Problem.badRequest(say("cover.is-not-a-duty", key));
  }
}
