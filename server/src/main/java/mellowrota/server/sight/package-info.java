/** The world as rules and sight need it: crew, places, calendars, details, wordings and rules. */
package mellowrota.server.sight;
