/** How tries of passwords are kept. */
package mellowrota.server.accounts.store;
