/**
 * How people, teams, places, hours and the house itself are kept; each table is named here alone.
 */
package mellowrota.server.crew.store;
