/** How duties, limits and clashes that were let stand are kept. */
package mellowrota.server.cover.store;
