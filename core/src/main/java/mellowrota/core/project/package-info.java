/** A record in, entries with all their faces out; and what changed between two such results. */
package mellowrota.core.project;
