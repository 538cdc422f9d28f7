/** How links, copies and what was changed outside are kept; each table is named here alone. */
package mellowrota.server.links.store;
