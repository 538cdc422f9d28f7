/** Measures speed against stated floors; never part of a test. */
package mellowrota.bench;
