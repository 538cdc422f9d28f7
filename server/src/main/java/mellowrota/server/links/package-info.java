/**
 * Links to outside calendars: copies are kept true there, what is changed there is noticed, and
 * busy time is read. Nothing here talks to a host inside a transaction.
 */
package mellowrota.server.links;
