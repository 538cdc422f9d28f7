/** Faces as iCalendar text (RFC 5545). */
package mellowrota.server.ical;
