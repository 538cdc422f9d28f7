/**
 * Calendars over CalDAV (RFC 4791) with sync-collection (RFC 6578), read-only, for every calendar
 * that a person owns, is a member of, or has by a share.
 */
package mellowrota.server.caldav;
