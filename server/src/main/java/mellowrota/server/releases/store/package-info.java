/** How each yes is kept; the table is named here alone. */
package mellowrota.server.releases.store;
