package mellowrota.server.caldav;

import static mellowrota.server.platform.Words.say;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import mellowrota.server.platform.BodyLimit;
import mellowrota.server.platform.Problem;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/** Reads request bodies: any prefix, any charset, no document type, limited depth. */
final class DavXml {

  private static final int DEEPEST = 30;

  private DavXml() {}

  /** The root element; empty for an empty body. */
  static Optional<Element> read(InputStream body) throws IOException {
    byte[] bytes = body.readAllBytes();
    if (new String(bytes, java.nio.charset.StandardCharsets.ISO_8859_1).isBlank()) {
      return Optional.empty();
    }
    try {
      DocumentBuilder builder = factory().newDocumentBuilder();
      builder.setErrorHandler(new Throwing());
      Document document = builder.parse(new java.io.ByteArrayInputStream(bytes));
      requireShallow(document.getDocumentElement(), 0);
      return Optional.of(document.getDocumentElement());
    } catch (SAXException malformed) {
      throw Problem.badRequest(say("caldav.the-body-must-be"));
    } catch (ParserConfigurationException impossible) {
      throw new IllegalStateException("the platform's parser lacks a feature", impossible);
    } catch (BodyLimit.TooLarge tooLarge) {
      throw tooLarge.problem();
    } catch (IOException badEncoding) {
      throw Problem.badRequest(say("caldav.the-body-is-not"));
    }
  }

  private static DocumentBuilderFactory factory() throws ParserConfigurationException {
    DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
    factory.setNamespaceAware(true);
    factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
    factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
    factory.setXIncludeAware(false);
    factory.setExpandEntityReferences(false);
    return factory;
  }

  private static void requireShallow(Element element, int depth) {
    if (depth > DEEPEST) {
      throw Problem.badRequest(say("caldav.the-body-is-nested"));
    }
    for (Element child : children(element)) {
      requireShallow(child, depth + 1);
    }
  }

  static List<Element> children(Element element) {
    List<Element> found = new ArrayList<>();
    for (Node n = element.getFirstChild(); n != null; n = n.getNextSibling()) {
      if (n instanceof Element child) {
        found.add(child);
      }
    }
    return found;
  }

  static QName name(Element element) {
    String namespace = element.getNamespaceURI() == null ? "" : element.getNamespaceURI();
    return new QName(namespace, element.getLocalName());
  }

  static Optional<Element> child(Element element, QName name) {
    return children(element).stream().filter(c -> name(c).equals(name)).findFirst();
  }

  private static final class Throwing implements ErrorHandler {
    @Override
    public void warning(SAXParseException e) {}

    @Override
    public void error(SAXParseException e) throws SAXException {
      throw e;
    }

    @Override
    public void fatalError(SAXParseException e) throws SAXException {
      throw e;
    }
  }
}
