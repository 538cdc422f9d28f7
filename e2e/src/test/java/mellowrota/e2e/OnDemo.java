package mellowrota.e2e;

import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;

/** Tests with a server on a copy of the demo to themselves, and its coordinator. */
abstract class OnDemo {

  Server server;
  Api hana;

  @BeforeClass
  public void serve() {
    server = Server.started(Database.demo());
    hana = Api.of(server, "hana");
  }

  @AfterClass(alwaysRun = true)
  public void leave() {
    if (server != null) {
      server.close();
    }
  }
}
