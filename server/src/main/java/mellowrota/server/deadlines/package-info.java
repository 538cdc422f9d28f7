/** Chains of deadlines as they are kept, and the sets made of them. */
@org.jspecify.annotations.NullMarked
package mellowrota.server.deadlines;
