/** Calendars, entries and faces as they are kept: written by acts, read by whoever may. */
package mellowrota.server.calendars;
