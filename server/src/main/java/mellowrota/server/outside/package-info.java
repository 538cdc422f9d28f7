/**
 * Talks to calendar hosts that people name: CalDAV as a client, and only to addresses that may be
 * reached. It knows nothing of the house.
 */
package mellowrota.server.outside;
