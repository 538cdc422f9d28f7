/** How feeds are kept; the table is named here alone. */
package mellowrota.server.feeds.store;
