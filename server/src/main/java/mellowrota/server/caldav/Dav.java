package mellowrota.server.caldav;

import javax.xml.namespace.QName;

/** Names of the protocols spoken here. */
final class Dav {

  static final String DAV = "DAV:";
  static final String CAL = "urn:ietf:params:xml:ns:caldav";
  static final String CS = "http://calendarserver.org/ns/";
  static final String APPLE = "http://apple.com/ns/ical/";

  static final QName CALENDAR_DATA = cal("calendar-data");
  static final QName GETETAG = dav("getetag");

  private Dav() {}

  static QName dav(String name) {
    return new QName(DAV, name);
  }

  static QName cal(String name) {
    return new QName(CAL, name);
  }
}
