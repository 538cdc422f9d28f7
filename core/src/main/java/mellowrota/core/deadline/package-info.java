/**
 * Chains of deadlines: the language they are written in, and the dates they come to for a key date.
 * Knows no house: what its methods, roles and people are called is told to the reader, its working
 * days to the reckoner. Nothing is null.
 */
package mellowrota.core.deadline;
