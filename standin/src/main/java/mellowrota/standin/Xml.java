package mellowrota.standin;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;

/** Reading and writing what WebDAV's bodies need. */
final class Xml {

  static final String DAV = "DAV:";
  static final String CALDAV = "urn:ietf:params:xml:ns:caldav";

  private Xml() {}

  /** The body's root element; none where it is empty. */
  static Optional<Element> parse(byte[] body) throws IOException {
    if (body.length == 0) {
      return Optional.empty();
    }
    try {
      DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
      factory.setNamespaceAware(true);
      factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      return Optional.of(
          factory.newDocumentBuilder().parse(new ByteArrayInputStream(body)).getDocumentElement());
    } catch (ParserConfigurationException | SAXException fault) {
      throw new IOException("not XML", fault);
    }
  }

  static List<Element> children(Element parent) {
    List<Element> found = new ArrayList<>();
    for (Node one = parent.getFirstChild(); one != null; one = one.getNextSibling()) {
      if (one instanceof Element element) {
        found.add(element);
      }
    }
    return found;
  }

  static Optional<Element> child(Element parent, String namespace, String name) {
    return children(parent).stream().filter(one -> is(one, namespace, name)).findFirst();
  }

  static boolean is(Element element, String namespace, String name) {
    return namespace.equals(element.getNamespaceURI()) && name.equals(element.getLocalName());
  }

  static String escape(String text) {
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
  }
}
