/** Which days are worked where: regions with their holidays, weeks of places, closures. */
package mellowrota.server.regions;
