package mellowrota.server.outside;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.net.URI;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a host answers is bounded before it is read, whatever it says. */
public class MultistatusTest {

  private static final long MIB = 1L << 20;
  private static final String BEGIN = "<multistatus xmlns='DAV:'>";

  private static OutsideHttp.Answer answer(String body) {
    return new OutsideHttp.Answer(207, URI.create("https://a.example/dav/"), Map.of(), body);
  }

  /** Told by its name, since a report would hold all of its text. */
  private record Large(String text) {
    @Override
    public String toString() {
      return text.length() + " letters";
    }
  }

  @DataProvider
  Object[][] answers() {
    return new Object[][] {
      {"empty elements", new Large(BEGIN + "<a/>".repeat(5_000_000) + "</multistatus>")},
      {
        "empty answers",
        new Large(BEGIN + "<response><href>x</href></response>".repeat(600_000) + "</multistatus>")
      },
      {"elements in one another", new Large(BEGIN + "<a>".repeat(2_000_000))},
      {"a document type", new Large("<!DOCTYPE a [<!ENTITY b 'c'>]><a>&b;</a>")},
    };
  }

  @Test(dataProvider = "answers")
  public void aLargeAnswerIsAFaultAndCostsLittle(String what, Large body) {
    ThreadMXBean thread = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    long before = thread.getCurrentThreadAllocatedBytes();
    assertThatThrownBy(() -> Multistatus.parse(answer(body.text())))
        .as(what)
        .isInstanceOf(OutsideFault.class);
    assertThat(thread.getCurrentThreadAllocatedBytes() - before).as(what).isLessThan(64 * MIB);
  }

  @Test
  public void whoeverIsNamedWithoutAnAddressIsPassedOver() throws OutsideFault {
    Multistatus read =
        Multistatus.parse(
            answer(
                BEGIN
                    + "<response><status>HTTP/1.1 200 OK</status></response>"
                    + "<response><href>%zz</href></response>"
                    + "<response><href>one.ics</href></response></multistatus>"));
    assertThat(read.responses()).hasSize(1);
  }
}
