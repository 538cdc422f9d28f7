/** Whom a detail can reach and by which rule; what somebody can see and through what. */
package mellowrota.server.audit;
