/** What changed in a record, and how to take it back without touching what others did since. */
package mellowrota.core.change;
