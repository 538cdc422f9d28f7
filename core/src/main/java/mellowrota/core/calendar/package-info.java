/** Calendars of all six sorts, who reads them in which way, and how much that way lets through. */
package mellowrota.core.calendar;
