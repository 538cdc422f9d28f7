/**
 * How calendars, ways of reading them, details, wordings and rules are kept; each table is named
 * here alone.
 */
package mellowrota.server.sight.store;
