/** How regions, their holidays and days without work are kept. */
package mellowrota.server.regions.store;
