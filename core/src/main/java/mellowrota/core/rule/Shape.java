package mellowrota.core.rule;

/** As what a record stands on a calendar. */
public enum Shape {
  SPAN,
  SPAN_WITH_MARGINS,
  /** Every day at the site that the span touches, else the due day. */
  WHOLE_DAY,
  /** The span where there is one, else given → due, else the due mark. */
  AS_IT_COMES,
  /** From handed over until due, free. */
  GIVEN_DUE,
  /** Fifteen minutes ending at the due time, or the due day, free. */
  DUE_MARK
}
