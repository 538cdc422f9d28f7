package mellowrota.core.rule;

import java.util.Objects;

/**
 * Why something lands or does not, as a code that a screen puts in words.
 *
 * @param subject what the code speaks of: a rule's number, a state, the reason typed with a ruling
 */
public record Reason(Code code, String subject) {

  /** In the order in which they are looked at; the first that holds is told. */
  public enum Code {
    DRAFT,
    CANCELLED,
    NOT_SENT,
    NEVER_HERE,
    PRIVATE,
    PERSONAL,
    LEFT_THE_HOUSE,
    /** A rule speaks of this calendar, and this part of its condition does not hold. */
    RULE_KIND,
    RULE_STATE,
    RULE_TAG,
    RULE_TEAM,
    RULE_PLACE,
    RULE_ROLE,
    RULE_DETAIL,
    RULE_PRIVACY,
    RULE_AUTHOR,
    RULE_START_HOURS,
    RULE_ALL_DAY,
    RULE_NOT_MET,
    /** Its rule takes it off when done. */
    RULE_DONE,
    /** The rule asks for a span or a due time that the record has not. */
    RULE_NO_TIME,
    /** No rule names this calendar for this record. */
    NO_RULE,
    /** Landed by this rule. */
    RULE,
    ALSO_HERE
  }

  public Reason {
    Objects.requireNonNull(code, "code");
    Objects.requireNonNull(subject, "subject");
  }

  public static Reason of(Code code) {
    return new Reason(code, "");
  }

  public static Reason of(Code code, Object subject) {
    return new Reason(code, String.valueOf(subject));
  }
}
