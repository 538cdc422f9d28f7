/** Calendars shown to one more reader: offered, accepted, limited in level and time, withdrawn. */
package mellowrota.server.shares;
