/** What a visit looks like on one calendar: entries, their families and identifiers. */
package mellowrota.core.entry;
