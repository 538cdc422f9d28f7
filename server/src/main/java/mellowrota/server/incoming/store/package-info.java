/** How rows of files that were taken are kept; the table is named here alone. */
package mellowrota.server.incoming.store;
