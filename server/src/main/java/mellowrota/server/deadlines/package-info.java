/** Chains of deadlines, and the dates they come to. */
package mellowrota.server.deadlines;
