package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** Lists and calendars as files, each as its asker may see it. */
public class FilesTest {

  private Api hana;
  private Api ines;

  @BeforeClass
  public void start() {
    Server server = Server.shared();
    hana = Api.of(server, "hana");
    ines = Api.of(server, "ines");
    hana.record(
        """
        {"kind": "JOB", "state": "CONFIRMED", "title": "Filed, with a \\"comma\\"", "place": 1,
         "visits": [{"start": "2027-07-05T08:00", "end": "2027-07-05T12:00"},
                    {"first": "2027-07-07", "last": "2027-07-08"}],
         "people": [{"role": 0, "person": %d}, {"role": 3, "person": %d}],
         "details": {"contact": "=HYPERLINK(1)", "phone": "0555 0166", "quote": "900 agreed",
                     "notes": "one\\ntwo"}}
        """
            .formatted(hana.idOf("people", "Tam Birtles"), hana.idOf("people", "Ines Okafor")));
  }

  @Test
  public void aListComesAsCsvWithARowForEachVisit() {
    Api.Answer answer = hana.get("/api/v1/records.csv?find=Filed").expect(200);
    assertThat(answer.header("Content-Type")).startsWith("text/csv");
    assertThat(answer.header("Content-Disposition")).contains("records.csv");
    List<String> lines = answer.text().lines().toList();
    assertThat(lines.get(0))
        .startsWith(
            "ref,kind,state,title,place,also uses,team,start,end,zone,due,lead,others,tags,people needed,"
                + "skills needed,minimum headcount,estimate,contact");
    assertThat(answer.text())
        .contains("\"Filed, with a \"\"comma\"\"\"")
        .contains("2027-07-05T08:00,2027-07-05T12:00,Europe/London")
        .contains("2027-07-07,2027-07-08,")
        .contains("Tam Birtles,Ines Okafor")
        .as("a formula is made harmless, a phone number stays")
        .contains("'=HYPERLINK(1)")
        .contains(",0555 0166,")
        .contains("900 agreed");
  }

  @Test
  public void aFileHoldsNoMoreThanItsAskerMaySee() {
    String csv = ines.get("/api/v1/records.csv?find=Filed").expect(200).text();
    assertThat(csv)
        .contains("2027-07-05T08:00")
        .doesNotContain("0555 0166")
        .doesNotContain("900 agreed");
    String calendar = ines.get("/api/v1/records.ics?find=%22Filed%22").expect(200).text();
    assertThat(Calendars.unfold(calendar)).contains("Filed").doesNotContain("0555 0166");
  }

  @Test
  public void aListComesAsICalendarThatAnotherLibraryReads() {
    String text = hana.get("/api/v1/records.ics?find=%22Filed%22").expect(200).text();
    ICalendar calendar = Biweekly.parse(text).first();
    assertThat(calendar.validate(biweekly.ICalVersion.V2_0).isEmpty()).isTrue();
    List<VEvent> events = calendar.getEvents();
    assertThat(events).hasSize(2);
    assertThat(events.get(0).getDateStart().getValue()).hasToString("Mon Jul 05 07:00:00 UTC 2027");
    assertThat(events.get(1).getDateEnd().getValue().toString()).contains("Jul 09");
    assertThat(events.get(0).getUid().getValue()).isNotEqualTo(events.get(1).getUid().getValue());
    assertThat(hana.get("/api/v1/records.ics?find=%22Filed%22").text())
        .as("the same identifiers each time")
        .contains(events.get(0).getUid().getValue());
  }

  @Test
  public void aCalendarComesAsFilesToWhoeverReadsIt() {
    long own = ines.idOf("calendars", "Ines Okafor, own");
    String text = ines.get("/api/v1/calendars/" + own + ".ics").expect(200).text();
    assertThat(Biweekly.parse(text).first().getEvents()).isNotEmpty();
    assertThat(ines.get("/api/v1/calendars/" + own + ".csv").expect(200).text())
        .startsWith("title,place,start,end,zone,state,text");
    Api.of(Server.shared(), "tam").get("/api/v1/calendars/" + own + ".csv").expect(404);
    hana.get("/api/v1/calendars/" + own + ".ics").expect(404);
  }
}
