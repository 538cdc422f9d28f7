/**
 * How acts are kept, and the rows that triggers keep under them; each table is named here alone.
 */
package mellowrota.server.acts.store;
