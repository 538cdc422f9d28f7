/** Duties, what is short on them, and who could. */
package mellowrota.server.cover;
