/** Landing rules at work: which records an act affects, and their projection. */
package mellowrota.server.rules;
