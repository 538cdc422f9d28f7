/** Calendars under secret addresses, for programs that only subscribe. */
package mellowrota.server.feeds;
