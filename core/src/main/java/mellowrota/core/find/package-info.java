/**
 * The line that finds: what somebody types, read into pieces that a record must be like. The
 * grammar is in {@code docs/FINDING.md}. Knows no house: what its people, teams and places are
 * called is told to the reader, and which day it is. Nothing is null.
 */
package mellowrota.core.find;
