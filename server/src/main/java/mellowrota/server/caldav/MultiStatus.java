package mellowrota.server.caldav;

import java.io.ByteArrayOutputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes a 207 answer (RFC 4918 §13). */
final class MultiStatus {

  /** Writes the inside of a property. */
  @FunctionalInterface
  interface Content {
    void write(XMLStreamWriter out) throws XMLStreamException;
  }

  static final Content EMPTY = out -> {};

  private static final Map<String, String> PREFIXES =
      Map.of(Dav.DAV, "d", Dav.CAL, "c", Dav.CS, "cs", Dav.APPLE, "i");

  private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
  private final XMLStreamWriter out;

  MultiStatus() {
    try {
      out = XMLOutputFactory.newFactory().createXMLStreamWriter(bytes, "UTF-8");
      out.writeStartDocument("UTF-8", "1.0");
      start(out, Dav.dav("multistatus"));
      for (Map.Entry<String, String> prefix : PREFIXES.entrySet()) {
        out.writeNamespace(prefix.getValue(), prefix.getKey());
      }
    } catch (XMLStreamException impossible) {
      throw new IllegalStateException("writing to memory failed", impossible);
    }
  }

  static void start(XMLStreamWriter out, QName name) throws XMLStreamException {
    String prefix = PREFIXES.get(name.getNamespaceURI());
    if (prefix != null) {
      out.writeStartElement(prefix, name.getLocalPart(), name.getNamespaceURI());
    } else if (name.getNamespaceURI().isEmpty()) {
      out.writeStartElement(name.getLocalPart());
    } else {
      out.writeStartElement("x", name.getLocalPart(), name.getNamespaceURI());
      out.writeNamespace("x", name.getNamespaceURI());
    }
  }

  static void empty(XMLStreamWriter out, QName name) throws XMLStreamException {
    start(out, name);
    out.writeEndElement();
  }

  static void text(XMLStreamWriter out, QName name, String text) throws XMLStreamException {
    start(out, name);
    out.writeCharacters(text);
    out.writeEndElement();
  }

  static Content text(String text) {
    return out -> out.writeCharacters(text);
  }

  static Content href(String href) {
    return out -> text(out, Dav.dav("href"), href);
  }

  /** One resource with the properties it has, and the names of those it has not. */
  void resource(String href, Map<QName, Content> found, List<QName> missing) {
    write(
        () -> {
          start(out, Dav.dav("response"));
          text(out, Dav.dav("href"), href);
          if (!found.isEmpty() || missing.isEmpty()) {
            propstat(found, "HTTP/1.1 200 OK");
          }
          if (!missing.isEmpty()) {
            Map<QName, Content> none = new LinkedHashMap<>();
            missing.forEach(name -> none.put(name, EMPTY));
            propstat(none, "HTTP/1.1 404 Not Found");
          }
          out.writeEndElement();
        });
  }

  /** Properties that were refused, all alike. */
  void refused(String href, List<QName> names) {
    Map<QName, Content> none = new LinkedHashMap<>();
    names.forEach(name -> none.put(name, EMPTY));
    write(
        () -> {
          start(out, Dav.dav("response"));
          text(out, Dav.dav("href"), href);
          propstat(none, "HTTP/1.1 403 Forbidden");
          out.writeEndElement();
        });
  }

  /** A resource that is not there (any more). */
  void gone(String href) {
    status(href, "HTTP/1.1 404 Not Found", EMPTY);
  }

  /** A collection whose answer was cut (RFC 6578 §3.6). */
  void cut(String href) {
    status(
        href,
        "HTTP/1.1 507 Insufficient Storage",
        o -> {
          start(o, Dav.dav("error"));
          empty(o, Dav.dav("number-of-matches-within-limits"));
          o.writeEndElement();
        });
  }

  private void status(String href, String status, Content more) {
    write(
        () -> {
          start(out, Dav.dav("response"));
          text(out, Dav.dav("href"), href);
          text(out, Dav.dav("status"), status);
          more.write(out);
          out.writeEndElement();
        });
  }

  void syncToken(String token) {
    write(() -> text(out, Dav.dav("sync-token"), token));
  }

  private void propstat(Map<QName, Content> properties, String status) throws XMLStreamException {
    start(out, Dav.dav("propstat"));
    start(out, Dav.dav("prop"));
    for (Map.Entry<QName, Content> property : properties.entrySet()) {
      start(out, property.getKey());
      property.getValue().write(out);
      out.writeEndElement();
    }
    out.writeEndElement();
    text(out, Dav.dav("status"), status);
    out.writeEndElement();
  }

  private interface Writing {
    void run() throws XMLStreamException;
  }

  private static void write(Writing writing) {
    try {
      writing.run();
    } catch (XMLStreamException impossible) {
      throw new IllegalStateException("writing to memory failed", impossible);
    }
  }

  byte[] done() {
    write(
        () -> {
          out.writeEndElement();
          out.writeEndDocument();
          out.flush();
        });
    return bytes.toByteArray();
  }

  /** An error document with one precondition (RFC 4918 §16). */
  static byte[] error(QName condition, Content inside) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    write(
        () -> {
          XMLStreamWriter out = XMLOutputFactory.newFactory().createXMLStreamWriter(bytes, "UTF-8");
          out.writeStartDocument("UTF-8", "1.0");
          start(out, Dav.dav("error"));
          for (Map.Entry<String, String> prefix : PREFIXES.entrySet()) {
            out.writeNamespace(prefix.getValue(), prefix.getKey());
          }
          start(out, condition);
          inside.write(out);
          out.writeEndElement();
          out.writeEndElement();
          out.writeEndDocument();
          out.flush();
        });
    return bytes.toByteArray();
  }
}
