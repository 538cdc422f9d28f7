/** What waits for a coordinator's yes, and the yes. */
package mellowrota.server.releases;
