package mellowrota.server.sight;

import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.WorkDays;

/** Tells the world on which days work is done. */
public interface WorkedDays {

  /**
   * As it is said now (COVER 26).
   *
   * @param house the days of those who say none of their own
   */
  WorkDays now(WorkingWeek house);
}
