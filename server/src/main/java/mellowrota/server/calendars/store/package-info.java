/** How entries and faces are kept; each table is named here alone. */
package mellowrota.server.calendars.store;
