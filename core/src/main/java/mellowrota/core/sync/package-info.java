/** What stands in an outside calendar against what should: who changed what, and what follows. */
package mellowrota.core.sync;
