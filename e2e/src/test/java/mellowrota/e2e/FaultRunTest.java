package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.function.Consumer;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.Faults;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * Many changes over many links at a host that is slow, sick and forgetful, with the server killed
 * in between and somebody editing at the other end: nothing is lost, doubled or wrong. What should
 * stand there is known by a model of this test's own, and the host is read directly. {@code
 * -Dfaults=2000,20,20} runs as many changes, links and kills; a seed makes it repeat.
 */
public class FaultRunTest {

  private static final String[] PEOPLE = {"ines", "tam", "wren"};
  private static final String[] NAMES = {"Ines Okafor", "Tam Birtles", "Wren Adeyemi"};
  private static final String DOUBLE = "doubled-";
  private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss");
  private static final Duration QUIET = Duration.ofSeconds(Integer.getInteger("quiet", 60));

  private int[] size = size();
  private double lostAfter = 0.04;
  private final long seed = Long.getLong("seed", 11);

  private static int[] size() {
    return java.util.Arrays.stream(System.getProperty("faults", "120,6,2").split(","))
        .mapToInt(Integer::parseInt)
        .toArray();
  }

  /** What the test knows of a ticket. */
  private static final class Ticket {
    final long id;
    final int lead;
    String title;
    LocalDateTime due;
    boolean cancelled;

    /** What somebody changed of it in one calendar, once. */
    String edited = "";

    Collection there;
    String theirs = "";
    boolean doubled;

    /** Whether we knew that it had arrived when somebody moved it away. */
    boolean knownThere;

    Ticket(long id, int lead, String title, LocalDateTime due) {
      this.id = id;
      this.lead = lead;
      this.title = title;
      this.due = due;
    }
  }

  private Outside outside;
  private Server server;
  private Server second;
  private final List<Account> accounts = new ArrayList<>();
  private final Map<Integer, List<Collection>> calendars = new HashMap<>();

  /** Of one account, one calendar each of the first two people. */
  private final List<Collection> yard = new ArrayList<>();

  private final List<Ticket> tickets = new ArrayList<>();
  private final Api[] leads = new Api[PEOPLE.length];
  private final long[] ids = new long[PEOPLE.length];
  private Api hana;
  private int made;
  private int doubles;

  /** Edits over there that found nothing to edit yet. */
  private int owed;

  private int owedDoubles;

  /** Two share the work unless a size is asked for, which runs with one as well. */
  @DataProvider
  public Object[][] processes() {
    return System.getProperty("faults") == null ? new Object[][] {{2}} : new Object[][] {{1}, {2}};
  }

  @Test(dataProvider = "processes")
  public void nothingIsLostDoubledOrWrong(int processes) {
    run(processes);
  }

  /** Where a lost answer is met by writing again under a new UID, the audit sees it. */
  @Test
  public void aWriteTriedAgainUnderAnotherUidIsSeen() {
    size = new int[] {30, 3, 0};
    lostAfter = 0.3;
    try {
      assertThatThrownBy(() -> run(Database.demo(), 1, this::forgetfulOfUids))
          .isInstanceOf(AssertionError.class)
          .hasMessageContaining("too much");
    } finally {
      size = size();
      lostAfter = 0.04;
    }
  }

  /** As if the server knew nothing of what it may have sent: the next try is another entry. */
  private void forgetfulOfUids(Database database) {
    database.execute(
        """
        create function forgets() returns trigger language plpgsql as $$
        begin
          if new.fault = 'ANSWER_LOST' and new.tries > old.tries and new.stands is null then
            update entry set uid = uid || '-again' where id = new.entry;
            new.href := replace(new.href, '.ics', '-again.ics');
            new.attempt := null;
            new.attempt_tag := null;
          end if;
          return new;
        end $$
        """);
    database.execute(
        "create trigger forgets before update on copy for each row execute function forgets()");
  }

  private void run(int processes) {
    run(Database.demo(), processes, database -> {});
  }

  private void run(Database database, int processes, Consumer<Database> beside) {
    accounts.clear();
    calendars.clear();
    yard.clear();
    tickets.clear();
    made = 0;
    doubles = 0;
    owed = 0;
    owedDoubles = 0;
    SplittableRandom random = new SplittableRandom(seed);
    outside = Outside.start();
    server = Server.started(database, outside.options().toArray(String[]::new));
    second =
        processes == 2 ? Server.started(database, outside.options().toArray(String[]::new)) : null;
    try {
      beside.accept(database);
      begin();
      trouble(true);
      int kills = size[2];
      for (int i = 0; i < size[0]; i++) {
        if (i == size[0] / 3) {
          outage(true);
        } else if (i == 2 * size[0] / 3) {
          outage(false);
        }
        step(random, i);
        if (kills > 0 && i % (size[0] / size[2]) == size[0] / size[2] / 2) {
          kills--;
          restart(kills);
        }
      }
      outage(false);
      makeUp(random);
      trouble(false);
      settle();
      audit();
    } finally {
      server.close();
      if (second != null) {
        second.close();
      }
      outside.close();
    }
  }

  private void begin() {
    hana = Api.of(server, "hana");
    for (int i = 0; i < PEOPLE.length; i++) {
      leads[i] = Api.of(server, PEOPLE[i]);
      ids[i] = hana.idOf("people", NAMES[i]);
      calendars.put(i, new ArrayList<>());
    }
    for (int n = 0; n < size[1]; n++) {
      int who = n % PEOPLE.length;
      link(who, account(PEOPLE[who] + n), "work");
    }
    Account both = account("yard");
    both.make("second", "Second");
    yard.add(link(0, both, "work"));
    yard.add(link(1, both, "second"));
  }

  private Account account(String name) {
    Account account = outside.account(name);
    account.faults().seed(seed * 1000 + accounts.size());
    accounts.add(account);
    return account;
  }

  private Collection link(int who, Account account, String calendar) {
    outside.link(leads[who], NAMES[who] + ", own", account, calendar, "");
    Collection there = account.collection(calendar).orElseThrow();
    calendars.get(who).add(there);
    return there;
  }

  private void trouble(boolean on) {
    double chance = on ? 0.04 : 0;
    for (Account one : accounts) {
      for (Faults.Chance what : Faults.Chance.values()) {
        one.faults().set(what, chance);
      }
      one.faults().set(Faults.Chance.RESET_AFTER, on ? lostAfter : 0);
    }
  }

  /** Two links each, as far as there are as many. */
  private void outage(boolean on) {
    Faults.Mode[] modes = {
      Faults.Mode.WRONG_PASSWORD, Faults.Mode.QUOTA, Faults.Mode.READ_ONLY, Faults.Mode.NO_SYNC,
    };
    for (int i = 0; i < Math.min(accounts.size(), 2 * modes.length); i++) {
      accounts.get(i).faults().set(modes[i % modes.length], on);
    }
  }

  private void restart(int left) {
    Server one = second != null && left % 2 == 0 ? second : server;
    one.kill();
    one.begin();
    if (one == server) {
      server.ready();
    }
  }

  /** One change: a new ticket, another title or time, handed over, cancelled; or one over there. */
  private void step(SplittableRandom random, int i) {
    if (i % 8 == 3) {
      if (moveOrDouble(random)) {
        return;
      }
      owedDoubles++;
    }
    if (i % 8 == 7) {
      if (edit(random)) {
        return;
      }
      owed++;
    }
    List<Ticket> open =
        tickets.stream().filter(one -> !one.cancelled && !one.edited.equals("DELETED")).toList();
    if (open.size() < 8 || random.nextInt(3) == 0) {
      make(random);
      return;
    }
    Ticket one = open.get(random.nextInt(open.size()));
    switch (random.nextInt(8)) {
      case 0 -> {
        if (one.edited.isEmpty()) {
          one.cancelled = true;
          change(one, "{\"state\": \"CANCELLED\"}");
        }
      }
      case 1, 2, 3 -> {
        if (!one.edited.equals("TIMES")) {
          one.due = one.due.plusMinutes(15L * (1 + random.nextInt(8)));
          change(one, "{\"due\": {\"at\": \"%s\"}}".formatted(one.due));
        }
      }
      default -> {
        if (!one.edited.equals("TITLE")) {
          one.title = "Run " + ++made + " \u00e6, of; " + one.id + " end";
          change(one, "{\"title\": \"%s\"}".formatted(one.title));
        }
      }
    }
  }

  /** What came before anything had arrived is made once something has. */
  private void makeUp(SplittableRandom random) {
    for (; owed > 0 && !free().isEmpty(); owed--) {
      Await.until("an entry there to edit", QUIET, () -> edit(random));
    }
    for (; owedDoubles > 0 && !freeInTheYard().isEmpty(); owedDoubles--) {
      Await.until("an entry there to double", QUIET, () -> moveOrDouble(random));
    }
  }

  /** What nobody cancelled or edited so far. */
  private List<Ticket> free() {
    return tickets.stream().filter(one -> !one.cancelled && one.edited.isEmpty()).toList();
  }

  private List<Ticket> freeInTheYard() {
    return free().stream().filter(one -> one.lead < yard.size() && !one.doubled).toList();
  }

  private void make(SplittableRandom random) {
    int lead = random.nextInt(PEOPLE.length);
    String title = "Run " + ++made + " new end";
    LocalDateTime due = LocalDateTime.of(2026, 12, 1, 9, 0).plusMinutes(15L * random.nextInt(2000));
    long id =
        hana.record(
            """
            {"title": "%s", "due": {"at": "%s"}, "people": [{"role": 0, "person": %d}]}
            """
                .formatted(title, due, ids[lead]));
    tickets.add(new Ticket(id, lead, title, due));
  }

  private void change(Ticket one, String body) {
    hana.change(one.id, body);
  }

  /** Somebody changes an entry over there, each at most once, and not what we change too. */
  private boolean edit(SplittableRandom random) {
    List<Ticket> free = free();
    // Of what has arrived by now, wherever it stands; somebody edits only what they see.
    Ticket one = null;
    Collection there = null;
    Map.Entry<String, Collection.Stored> stored = null;
    for (int tries = 0; tries < 4 * free.size() && stored == null; tries++) {
      one = free.get(random.nextInt(free.size()));
      List<Collection> where = calendars.get(one.lead);
      there = where.get(random.nextInt(where.size()));
      stored = entry(there, one);
    }
    if (stored == null) {
      return false;
    }
    String etag = stored.getValue().etag();
    String text = Outside.unfolded(stored.getValue());
    String changed;
    if (random.nextBoolean()) {
      one.edited = "TIMES";
      one.theirs = STAMP.format(one.due.plusHours(1));
      changed =
          text.replace(
              "DTEND;TZID=Europe/London:" + STAMP.format(one.due),
              "DTEND;TZID=Europe/London:" + one.theirs);
      one.due = one.due.plusHours(1);
    } else {
      one.edited = "TITLE";
      one.theirs = "Theirs " + one.id + " end";
      changed = text.replace(escaped(one.title), one.theirs);
    }
    if (changed.equals(text)) {
      throw new AssertionError("nothing to edit in " + text);
    }
    one.there = there;
    // Whatever comes between is no edit of what was read.
    Collection.Outcome outcome =
        there.put(
            stored.getKey(),
            changed,
            now -> now.filter(was -> was.etag().equals(etag)).isPresent());
    if (outcome != Collection.Outcome.CHANGED) {
      if (one.edited.equals("TIMES")) {
        one.due = one.due.minusHours(1);
      }
      one.edited = "";
      one.there = null;
      return false;
    }
    return true;
  }

  /**
   * Somebody moves an entry into the calendar that another has in the same account, or doubles it
   * there or beside itself, under its own UID or as programs do that give it a new one.
   */
  private boolean moveOrDouble(SplittableRandom random) {
    List<Ticket> free = freeInTheYard();
    Ticket one = null;
    Collection there = null;
    Map.Entry<String, Collection.Stored> stored = null;
    for (int tries = 0; tries < 4 * free.size() && stored == null; tries++) {
      one = free.get(random.nextInt(free.size()));
      there = yard.get(one.lead);
      stored = entry(there, one);
    }
    if (stored == null) {
      return false;
    }
    String name = DOUBLE + doubles + ".ics";
    String text = stored.getValue().text();
    String etag = stored.getValue().etag();
    String anew = text.replace("\nUID:", "\nUID:x" + doubles + "-");
    Collection other = yard.get(1 - one.lead);
    // Asked before, since a round that is under way may find it gone at once.
    boolean knownThere =
        !server
            .database()
            .query(
                // Calendars of other accounts count their tags from one as well.
                "select 1::text from copy where etag = '%s' and href like '%%/dav/yard/%%/%s'"
                    .formatted(etag, stored.getKey()))
            .isEmpty();
    switch (random.nextInt(4)) {
      case 0 -> {
        Collection.Outcome outcome =
            there.delete(
                stored.getKey(), now -> now.filter(was -> was.etag().equals(etag)).isPresent());
        if (outcome != Collection.Outcome.DELETED) {
          return false;
        }
        one.edited = "DELETED";
        one.knownThere = knownThere;
        one.there = there;
        put(other, name, text);
      }
      case 1 -> put(other, name, text);
      case 2 -> put(other, name, anew);
      default -> put(there, name, anew);
    }
    one.doubled = true;
    doubles++;
    return true;
  }

  private static void put(Collection there, String name, String text) {
    assertThat(there.put(name, text, now -> true)).isEqualTo(Collection.Outcome.CREATED);
  }

  private static String escaped(String title) {
    return title.replace(";", "\\;").replace(",", "\\,");
  }

  /** The entry as it stands there now with what we last said of it. */
  private static Map.Entry<String, Collection.Stored> entry(Collection there, Ticket one) {
    return there.objects().entrySet().stream()
        .filter(e -> !e.getKey().startsWith(DOUBLE))
        .filter(e -> Outside.unfolded(e.getValue()).contains(escaped(one.title)))
        .filter(
            e ->
                Outside.unfolded(e.getValue())
                    .contains("DTEND;TZID=Europe/London:" + STAMP.format(one.due)))
        .findFirst()
        .orElse(null);
  }

  /** Until nothing is open any more and everything was read once more. */
  private void settle() {
    for (int round = 0; round < 2; round++) {
      for (Api lead : leads) {
        Outside.again(lead);
      }
      try {
        Await.until("nothing is open", QUIET, () -> open().isEmpty());
      } catch (AssertionError late) {
        throw new AssertionError(open() + "\n" + server.log(), late);
      }
    }
  }

  private List<String> open() {
    return server
        .database()
        .query(
            """
            select 'copy ' || c.entry || ' of ' || c.link_calendar || ' ' || c.state || ' '
              || coalesce(c.fault, '') || ', wants ' || coalesce(c.wanted, 'nothing')
              || ', has ' || coalesce(c.written, 'nothing') || ', tries ' || c.tries from copy c
              where c.due_at is not null
            union all select 'reading ' || l.id from link_calendar l
              where l.read_due < coalesce(l.read_at + interval '5 minutes', 'infinity')
            union all select 'link ' || k.id || ' ' || k.fault from link k where k.fault is not null
            """);
  }

  private void audit() {
    Map<Long, List<JsonNode>> told = new HashMap<>();
    for (Api lead : leads) {
      for (JsonNode one : lead.get("/api/v1/outside-changes").expect(200).json()) {
        told.computeIfAbsent(one.get("record").asLong(), key -> new ArrayList<>()).add(one);
      }
    }
    List<String> wrong = new ArrayList<>();
    int doubled = 0;
    for (int who = 0; who < PEOPLE.length; who++) {
      for (Collection there : calendars.get(who)) {
        audit(there, who, told, wrong);
        doubled +=
            there.objects().keySet().stream().filter(name -> name.startsWith(DOUBLE)).count();
      }
    }
    // What is ours is nobody's words wherever it stands, and what others put there is theirs.
    assertThat(doubled).as("doubled over there").isEqualTo(doubles);
    assertThat(notes()).as("records with notes of a copy, seed %s", seed).isEmpty();
    int edits = 0;
    for (Ticket one : tickets) {
      for (JsonNode change : told.getOrDefault(one.id, List.of())) {
        if (!change.get("part").asString().equals(one.edited)) {
          wrong.add("nobody changed this of " + one.title + " over there: " + change);
        }
      }
      if (!one.edited.isEmpty()) {
        edits++;
        boolean known =
            told.getOrDefault(one.id, List.of()).stream()
                .anyMatch(change -> change.get("part").asString().equals(one.edited));
        // What had arrived without our knowing is not missed, and comes again.
        boolean again =
            one.edited.equals("DELETED") && !one.knownThere && entry(one.there, one) != null;
        if (!known && !again) {
          wrong.add("an edit of " + one.title + " vanished: " + one.edited);
        }
      }
    }
    assertThat(wrong).as("seed %s", seed).isEmpty();
    assertThat(edits).as("edits over there").isGreaterThan(size[0] / 40);
    assertThat(doubles).as("moved or doubled over there").isGreaterThan(size[0] / 40);
  }

  private List<String> notes() {
    return server
        .database()
        .query(
            """
            select record::text from detail where key = 'notes' and record in (
              select record from detail where key = 'title' and value ~ '^(Run|Theirs) ')
            """);
  }

  private void audit(
      Collection there, int who, Map<Long, List<JsonNode>> told, List<String> wrong) {
    Map<String, Integer> standing = new TreeMap<>();
    for (Map.Entry<String, Collection.Stored> one : there.objects().entrySet()) {
      if (one.getKey().startsWith(DOUBLE)) {
        continue;
      }
      String text = Outside.unfolded(one.getValue());
      if (text.contains("Run ") || text.contains("Theirs ")) {
        standing.merge(said(text), 1, Integer::sum);
      }
    }
    Map<String, Integer> wanted = new TreeMap<>();
    for (Ticket one : tickets) {
      if (one.lead == who && !one.cancelled) {
        // Where our write met theirs, ours stands there and theirs is kept with a word.
        boolean held =
            one.edited.equals("TITLE")
                && one.there == there
                && told.getOrDefault(one.id, List.of()).stream()
                    .allMatch(change -> change.get("stays").asBoolean());
        String stands =
            (held ? one.theirs : escaped(one.title)) + " until " + STAMP.format(one.due);
        // What was taken off there stays off until somebody says, or a change of ours crossed it.
        if (one.there != there || !offered(one, told) || standing.containsKey(stands)) {
          wanted.merge(stands, 1, Integer::sum);
        }
      }
    }
    if (!standing.equals(wanted)) {
      Map<String, Integer> lost = new TreeMap<>(wanted);
      lost.keySet().removeAll(standing.keySet());
      Map<String, Integer> over = new TreeMap<>(standing);
      over.keySet().removeAll(wanted.keySet());
      wrong.add(
          there.title()
              + " of "
              + PEOPLE[who]
              + ": lost "
              + lost.keySet()
              + ", too much "
              + over
              + standing.values());
    }
  }

  /** Whether it was taken off there, which somebody is asked about. */
  private static boolean offered(Ticket one, Map<Long, List<JsonNode>> told) {
    return told.getOrDefault(one.id, List.of()).stream()
        .anyMatch(
            change ->
                change.get("part").asString().equals("DELETED")
                    && change.get("state").asString().equals("PROPOSED"));
  }

  private static String said(String text) {
    String title = line(text, "SUMMARY");
    int from = Math.max(title.indexOf("Run "), title.indexOf("Theirs "));
    return title.substring(from, title.indexOf(" end", from) + 4) + " until " + line(text, "DTEND");
  }

  private static String line(String text, String name) {
    return text.lines()
        .filter(one -> one.startsWith(name + ":") || one.startsWith(name + ";"))
        .map(one -> one.substring(one.indexOf(':') + 1))
        .reduce((one, other) -> other)
        .orElse("");
  }
}
