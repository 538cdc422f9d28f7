package mellowrota.e2e;

import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;

/** Tests with a server on a copy of the demo to themselves, and its coordinator. */
abstract class OnDemo {

  Server server;
  Api hana;

  @BeforeClass
  public void serve() {
    server = Server.started(Database.demo(), options());
    hana = Api.of(server, "hana");
  }

  /** With what the server is started besides. */
  String[] options() {
    return new String[0];
  }

  @AfterClass(alwaysRun = true)
  public void leave() {
    if (server != null) {
      server.close();
    }
  }
}
