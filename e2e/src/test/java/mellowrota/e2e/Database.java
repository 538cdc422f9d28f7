package mellowrota.e2e;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;

/** Databases for tests, on the cluster that {@code ./test} started. */
final class Database {

  private static final AtomicInteger COUNT = new AtomicInteger();
  private final String name;

  private Database(String name) {
    this.name = name;
  }

  static Database empty() {
    return create("");
  }

  /** A copy of the demo, which is loaded once for all tests. */
  static Database demo() {
    return create(" template " + Demo.template().name);
  }

  private static synchronized Database create(String how) {
    String name = "t" + ProcessHandle.current().pid() + "_" + COUNT.incrementAndGet();
    try (Connection connection = connect("postgres");
        Statement statement = connection.createStatement()) {
      statement.execute("create database " + name + how);
      return new Database(name);
    } catch (SQLException failure) {
      throw new AssertionError("no test database; run ./test", failure);
    }
  }

  String url() {
    return "jdbc:postgresql://" + environment("MELLOW_TEST_DB") + "/" + name;
  }

  /** All of it as text. */
  String dump() {
    StringBuilder all = new StringBuilder();
    for (String table :
        query("select tablename from pg_tables where schemaname = 'public' order by 1")) {
      query("select t::text from \"" + table + "\" t").forEach(row -> all.append(row).append('\n'));
    }
    return all.toString();
  }

  /** Where the keys to what is sealed in it are. */
  Path keys() {
    return Path.of(environment("MELLOW_TEST_WORK"), name + ".keys");
  }

  static String password() {
    return environment("MELLOW_TEST_DB_PASSWORD");
  }

  static String environment(String name) {
    String value = System.getenv(name);
    if (value == null || value.isEmpty()) {
      throw new AssertionError(name + " is not set; these tests run by ./test");
    }
    return value;
  }

  private static Connection connect(String database) throws SQLException {
    return DriverManager.getConnection(
        "jdbc:postgresql://" + environment("MELLOW_TEST_DB") + "/" + database,
        "mellow",
        password());
  }

  void execute(String sql) {
    try (Connection connection = connect(name);
        Statement statement = connection.createStatement()) {
      statement.execute(sql);
    } catch (SQLException failure) {
      throw new AssertionError(sql, failure);
    }
  }

  /** The rows of a query, each as its first column's text. */
  List<String> query(String sql) {
    try (Connection connection = connect(name);
        Statement statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(sql)) {
      List<String> found = new ArrayList<>();
      while (rows.next()) {
        found.add(rows.getString(1));
      }
      return found;
    } catch (SQLException failure) {
      throw new AssertionError(sql, failure);
    }
  }

  /** Holds an advisory lock meanwhile. */
  void holding(long lock, Runnable meanwhile) {
    try (Connection connection = connect(name);
        Statement statement = connection.createStatement()) {
      statement.execute("select pg_advisory_lock(" + lock + ")");
      meanwhile.run();
    } catch (SQLException failure) {
      throw new AssertionError("lock " + lock, failure);
    }
  }

  /** Changes something and keeps it only afterwards, so that its rows are locked meanwhile. */
  void changing(String sql, Runnable meanwhile) {
    try (Connection connection = connect(name);
        Statement statement = connection.createStatement()) {
      connection.setAutoCommit(false);
      statement.execute(sql);
      meanwhile.run();
      connection.commit();
    } catch (SQLException failure) {
      throw new AssertionError(sql, failure);
    }
  }

  /** Whether somebody waits for a row that is locked. */
  boolean somebodyWaits() {
    return !query(
            "select pid from pg_stat_activity"
                + " where datname = current_database() and wait_event_type = 'Lock'")
        .isEmpty();
  }

  /** Lets nobody in meanwhile, and puts out who is. */
  void away(Runnable meanwhile) {
    try (Connection connection = connect("postgres");
        Statement statement = connection.createStatement()) {
      statement.execute("alter database " + name + " allow_connections false");
      statement.execute(
          "select pg_terminate_backend(pid) from pg_stat_activity where datname = '" + name + "'");
      try {
        meanwhile.run();
      } finally {
        statement.execute("alter database " + name + " allow_connections true");
      }
    } catch (SQLException failure) {
      throw new AssertionError("away", failure);
    }
  }

  /** A checksum per table; sign-in sessions and attempts and last-used times are left out. */
  List<String> checksums() {
    List<String> sums = new ArrayList<>();
    List<String> tables =
        query(
            """
            select table_name from information_schema.tables where table_schema = 'public'
            and table_type = 'BASE TABLE'
            and table_name not in ('spring_session', 'spring_session_attributes', 'sign_in_try')
            order by 1
            """);
    for (String table : tables) {
      String row = table.equals("app_password") ? "(id, person, label, hash)" : "t";
      sums.add(
          table
              + " "
              + query(
                      "select count(*) || ' ' || coalesce(md5(string_agg(x, ',' order by x)), '')"
                          + " from (select md5("
                          + row
                          + "::text) as x from "
                          + table
                          + " t) s")
                  .get(0));
    }
    return sums;
  }
}
