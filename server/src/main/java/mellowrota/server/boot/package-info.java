/** Puts the server together. It sees every feature and no feature sees it. */
package mellowrota.server.boot;
