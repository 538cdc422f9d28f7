package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The whole set as one file: out, in again, changed by hand, and wrong in every way. */
public class SetFileTest extends OnDemo {

  private static final String[] YAML = {"Content-Type", "application/yaml"};

  private String file() {
    return hana.get("/api/v1/rules/file").expect(200).text();
  }

  private ObjectNode read(String text) {
    return (ObjectNode) hana.post("/api/v1/rules/file", text, YAML).expect(200).json();
  }

  private JsonNode now() {
    return hana.get("/api/v1/rules").expect(200).json();
  }

  @Test
  public void outAndInAgainItIsTheSame() {
    String text = file();
    assertThat(text)
        .startsWith("# Rules, wordings and details of Quillwater Navigation\n")
        .contains("own calendars of: [Lead, Support, Supervisor]")
        .contains("as: given to due");
    ObjectNode read = read(text);
    JsonNode now = now();
    for (String part : List.of("rules", "wordings", "details", "usual", "tag")) {
      assertThat(read.get(part)).as(part).isEqualTo(now.get(part));
    }
    JsonNode look = Looking.at(hana, read);
    assertThat(look.get("added").asLong() + look.get("changed").asLong()).isZero();
    assertThat(look.get("takenOff").asLong()).isZero();
  }

  @Test
  public void whatIsWrittenByHandIsLookedAtAndTaken() {
    ObjectNode read =
        read(
            file()
                .replace(
                    "rules:\n",
                    """
                    rules:
                      - note: Closures are for the marina, \\"as it reads them\\"
                        when:
                          - kind: [job, ticket]
                          - none:
                              - private
                              - tag: swans
                          - any:
                              - starts between: [22:00, 06:00]
                              - role: lead
                        lands on:
                          - Closures
                          - calendars of the teams of: [Support]
                        as: as it comes
                        worded: By hand
                        shown as: free
                        reminders: [30 minutes, 2 working days]
                        invites: everybody on the job
                        release: after approval
                        when done: comes off
                    """)
                .replace(
                    "wordings:\n",
                    """
                    wordings:
                      - name: By hand
                        title: 'closed: {title}'
                        text: |
                          {place}
                          Berth {berth}
                        categories: [kind, tags]
                        fixed: The marina reads it
                    """)
                .replace(
                    "details:\n",
                    """
                    usually:
                      deadline: By hand
                    details:
                      - name: Berth
                        called: berth
                        for: [office, Lead, external]
                        holds: choice
                        choices: [North, South]
                        kinds: [job, ticket]
                        while: [confirmed]
                    """));
    read.put("looked", Looking.at(hana, read).get("looked").asString());
    long act =
        hana.post("/api/v1/rules/take", read.toString()).expect(200).json().get("act").asLong();
    String again = file();
    assertThat(again)
        .contains("Berth {berth}")
        .contains("fixed: The marina reads it")
        .contains("choices: [North, South]")
        .contains("- starts between: ['22:00', '06:00']")
        .contains("reminders: [30 minutes, 2 working days]")
        .contains("invites: everybody on the job")
        .contains("release: after approval")
        .contains("deadline: By hand");
    assertThat(read(again).get("rules")).isEqualTo(now().get("rules"));
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
  }

  @Test
  public void whatTheFileLeavesOutStays() {
    ObjectNode read = read("titles fixed: One style for all\n");
    assertThat(read.get("rules")).isEqualTo(now().get("rules"));
    assertThat(read.get("titlesFixed").asString()).isEqualTo("One style for all");
  }

  private static final String RULE =
      """
      rules:
        - when:
            - kind: [ticket]
          lands on:
            - Master
          as: the span
          when done: comes off
      """;

  /** What is written, where it is told (line and column from 1), and the way to mend it. */
  @DataProvider
  public Object[][] faults() {
    return new Object[][] {
      {"", "line 1, column 1", "the file is empty"},
      {"rules: [", "line 1, column 9", "not YAML"},
      {"\trules: x", "line 1, column 1", "not YAML"},
      {"rules:\n  - a: 'x\n", "line 3, column 1", "not YAML"},
      {"- one\n- two\n", "line 1, column 1", "must be a list of names and values"},
      {"rulez: []\n", "line 1, column 1", "\"rulez\" is not a name here; one of details"},
      {"rules: {}\n", "line 1, column 8", "begin each item with a dash"},
      {"rules: all of them\n", "line 1, column 8", "begin each item with a dash"},
      {"a: &a [1]\nb: *a\n", "line 1, column 1", "Number of aliases"},
      {"rules: []\nrules: []\n", "line 2, column 1", "\"rules\" is listed twice"},
      {
        RULE.replace("ticket", "chore"),
        "line 3, column 16",
        "\"chore\" is not possible for kind; one of deadline"
      },
      {
        RULE.replace("kind: [ticket]", "kind: []"),
        "line 3, column 15",
        "is empty; name at least one"
      },
      {
        RULE.replace("kind: [ticket]", "state: [open]"),
        "line 3, column 17",
        "\"open\" is not possible for state"
      },
      {
        RULE.replace("kind: [ticket]", "weather: wet"),
        "line 3, column 9",
        "\"weather\" is not a name"
      },
      {RULE.replace("kind: [ticket]", "secret"), "line 3, column 9", "private or all day"},
      {RULE.replace("kind: [ticket]", "team: Nobody"), "line 3, column 15", "the name of a team"},
      {RULE.replace("kind: [ticket]", "place: Moon"), "line 3, column 16", "the name of a place"},
      {RULE.replace("kind: [ticket]", "role: Boss"), "line 3, column 15", "the name of a role"},
      {RULE.replace("kind: [ticket]", "made by: A"), "line 3, column 18", "the name of a person"},
      {
        RULE.replace("kind: [ticket]", "detail: hue"),
        "line 3, column 17",
        "is not a detail of the set"
      },
      {RULE.replace("kind: [ticket]", "tag: ''"), "line 3, column 14", "is missing"},
      {RULE.replace("kind: [ticket]", "tag: [a, b]"), "line 3, column 14", "must be one text"},
      {
        RULE.replace("kind: [ticket]", "starts between: [25:00, 1]"),
        "line 3, column 25",
        "[\"22:00\", \"06:00\"]"
      },
      {
        RULE.replace("kind: [ticket]", "none: private"),
        "line 3, column 15",
        "begin each item with a dash"
      },
      {
        RULE.replace("kind: [ticket]", "kind: [ticket]\n        tag: x"),
        "line 3, column 9",
        "its own dash"
      },
      {RULE.replace("Master", "Mistress"), "line 5, column 9", "\"Mistress\" is not a calendar"},
      {RULE.replace("Master", "Ines Okafor, own"), "line 5, column 9", "date list or named"},
      {
        RULE.replace("Master", "own calendars of: [Boss]"),
        "line 5, column 28",
        "is not a role; one of Lead"
      },
      {
        RULE.replace("Master", "own calendars of: []"),
        "line 5, column 27",
        "must be a list of roles"
      },
      {
        RULE.replace("Master", "people: [Lead]"),
        "line 5, column 9",
        "\"people\" is not a name here"
      },
      {
        RULE.replace("the span", "a circle"),
        "line 6, column 9",
        "is not possible for as; one of as it comes"
      },
      {RULE.replace("    as: the span\n", ""), "line 2, column 5", "as is missing; one of SPAN"},
      {RULE.replace("comes off", "vanishes"), "line 7, column 16", "stays with a tick"},
      {RULE + "    worded: Nothing\n", "line 8, column 13", "is not a wording in this file"},
      {RULE + "    shown as: grey\n", "line 8, column 15", "one of busy, free"},
      {
        RULE + "    reminders: [30 minutes, soon]\n",
        "line 8, column 29",
        "not a reminder; write for example 30 minutes"
      },
      {RULE + "    reminders: 2\n", "line 8, column 16", "not a reminder"},
      {
        RULE + "    reminders: [999999 hours]\n",
        "line 8, column 17",
        "must be a whole number from 0, within a year"
      },
      {RULE + "    invites: friends\n", "line 8, column 14", "everybody on the job"},
      {RULE + "    release: later\n", "line 8, column 14", "after approval"},
      {RULE + "    colour: red\n", "line 8, column 5", "\"colour\" is not a name here"},
      {"wordings:\n  - title: x\n", "line 2, column 5", "name is missing"},
      {"usually:\n  chore: Plain\n", "line 2, column 3", "\"chore\" is not a name here"},
      {"usually:\n  job: Fancy\n", "line 2, column 8", "is not a wording"},
      {"details: []\n", "line 1, column 10", "only details of your own can be deleted"},
    };
  }

  @Test(dataProvider = "faults")
  public void aFaultIsToldByLineAndColumn(String text, String place, String words) {
    List<String> told = new ArrayList<>();
    hana.post("/api/v1/rules/file", text, YAML)
        .expect(422)
        .json()
        .get("faults")
        .forEach(f -> told.add(f.get("pointer").asString() + ": " + f.get("message").asString()));
    assertThat(told)
        .as(told.toString())
        .anySatisfy(one -> assertThat(one).startsWith(place + ": ").contains(words));
  }

  @DataProvider
  public Object[][] inTheWhole() {
    return new Object[][] {
      {
        "title: '{ref} {title}'",
        "title: '{ref} {titel}'",
        "at character 8: \"titel\" is not a detail"
      },
      {"called: notes", "called: the notes", "only details of your own"},
      {"holds: lines of text", "holds: colours", "is not possible for holds; one of"},
      {"for: people on the job", "for: nobody", "\"nobody\" is not a group of readers"},
      {"for: people on the job", "for: []", "for is empty"},
      {"categories: [kind]", "categories: [hue]", "is not possible for categories"},
      {"name: Phone", "name: Contact", "label is already the name of another detail"},
    };
  }

  @Test(dataProvider = "inTheWhole")
  public void aFaultAmongAllIsToldWhereItStands(String was, String is, String words) {
    String text = file();
    int at = text.indexOf(was);
    assertThat(at).as(was).isPositive();
    String wrong = text.substring(0, at) + is + text.substring(at + was.length());
    long line = text.substring(0, at).lines().count();
    String told = hana.post("/api/v1/rules/file", wrong, YAML).expect(422).text();
    assertThat(told.replace("\\\"", "\"")).contains(words);
    if (!was.startsWith("called")) {
      assertThat(told).contains("\"pointer\":\"line " + line + ", column ");
    }
  }

  @Test
  public void onlyCoordinatorsHaveTheFile() {
    Api ines = Api.of(server, "ines");
    ines.get("/api/v1/rules/file").expect(403);
    ines.post("/api/v1/rules/file", "rules: []", YAML).expect(403);
    hana.post("/api/v1/rules/file", "{}").expect(415);
    hana.post("/api/v1/rules/file", "a: ".repeat(100), YAML).expect(422);
    hana.post("/api/v1/rules/file", "[".repeat(5000), YAML).expect(422);
  }
}
