package mellowrota.e2e;

/** The made-up house, loaded once; tests work on copies of it. */
final class Demo {

  /** The moment at which every test's house begins. */
  static final String NOW = "2026-11-25T09:00:00Z";

  private static Database template;

  private Demo() {}

  static synchronized Database template() {
    if (template == null) {
      Database database = Database.empty();
      // What others copy must be left by whoever loaded it.
      Server.started(database, "--mellow.demo=true").movedTo(Database.empty()).close();
      template = database;
    }
    return template;
  }
}
