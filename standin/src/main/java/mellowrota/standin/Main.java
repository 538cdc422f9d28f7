package mellowrota.standin;

import java.io.IOException;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;

/**
 * {@code standin PORT FOLDER NAME:PASSWORD[:MODE|:SOMEBODY] …}: each account has the calendars Home
 * and Work, and is as the mode says from the beginning. With SOMEBODY its owner renames one entry
 * once the first stands there.
 */
public final class Main {

  private Main() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    if (args.length < 3) {
      throw new IllegalArgumentException(
          "wants a port, a folder, and NAME:PASSWORD once or more often");
    }
    try (StandIn standIn =
        StandIn.start(Integer.parseInt(args[0]), Optional.of(Path.of(args[1])))) {
      for (String one : Arrays.asList(args).subList(2, args.length)) {
        String[] parts = one.split(":");
        Account account = standIn.account(parts[0], parts[1]);
        account.make("work", "Work");
        sample(account.make("home", "Home"));
        if (parts.length > 2 && parts[2].equals("SOMEBODY")) {
          somebody(account);
        } else if (parts.length > 2) {
          account.faults().set(Faults.Mode.valueOf(parts[2]), true);
        }
      }
      Thread.currentThread().join();
    }
  }

  private static void somebody(Account account) {
    Collection work = account.collection("work").orElseThrow();
    if (!work.objects().isEmpty()) {
      return;
    }
    Thread thread =
        new Thread(
            () -> {
              while (!Somebody.edits(work, Somebody.Deed.RENAMES)) {
                LockSupport.parkNanos(1_000_000_000L);
              }
            },
            "somebody");
    thread.setDaemon(true);
    thread.start();
  }

  /** Something of their own: an hour every Tuesday and Thursday, and a day off next week. */
  private static void sample(Collection home) {
    if (!home.objects().isEmpty()) {
      return;
    }
    LocalDate monday = LocalDate.now(ZoneOffset.UTC).with(DayOfWeek.MONDAY);
    String tuesday = DateTimeFormatter.BASIC_ISO_DATE.format(monday.plusDays(1));
    String dayOff = DateTimeFormatter.BASIC_ISO_DATE.format(monday.plusDays(9));
    put(
        home,
        "swimming",
        "DTSTART:"
            + tuesday
            + "T160000Z\r\nDTEND:"
            + tuesday
            + "T173000Z\r\n"
            + "RRULE:FREQ=WEEKLY;BYDAY=TU,TH");
    put(home, "day-off", "DTSTART;VALUE=DATE:" + dayOff);
  }

  private static void put(Collection home, String name, String times) {
    String uid = home.hashCode() + "-" + name;
    home.put(
        name + ".ics",
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//A calendar host//EN\r\nBEGIN:VEVENT\r\n"
            + "UID:"
            + uid
            + "\r\nDTSTAMP:20260101T000000Z\r\n"
            + times
            + "\r\nSUMMARY:"
            + name
            + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
        before -> before.isEmpty());
  }
}
