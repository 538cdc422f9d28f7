/** Accounts: sign-in, invitations, passwords, app passwords, and who may call what. */
package mellowrota.server.accounts;
