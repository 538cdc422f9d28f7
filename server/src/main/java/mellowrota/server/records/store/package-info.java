/** How saved views are kept. */
package mellowrota.server.records.store;
