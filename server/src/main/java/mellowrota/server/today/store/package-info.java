/** How it is kept who has seen what; the table is named here alone. */
package mellowrota.server.today.store;
