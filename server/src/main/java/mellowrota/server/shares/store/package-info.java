/** How shares are kept; the table is named here alone. */
package mellowrota.server.shares.store;
