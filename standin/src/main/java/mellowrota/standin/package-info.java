/**
 * An outside calendar host to try against: CalDAV (RFC 4791, 6578) over memory, with a panel that
 * makes it slow, sick or forgetful. It knows open protocols and nothing of Mellow Rota.
 */
package mellowrota.standin;
