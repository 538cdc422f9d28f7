package mellowrota.core.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.Test;

public class DifferenceTest {

  private final Worlds.World world =
      Worlds.world()
          .coordinator(1, "Hana")
          .worker(2, "Ines")
          .worker(3, "Tam")
          .team(1, "Thornmere", 2)
          .team(2, "Saltgate", 3)
          .build();

  private static WorkRecord.Builder ticket() {
    return Worlds.ticket()
        .due(Worlds.dueAt("2026-11-27T13:00"))
        .assignments(List.of(Worlds.lead(2, Worlds.NOW)))
        .detail(DetailKey.TITLE, DetailValue.of("Stuck paddle"));
  }

  /** A store in memory, moved by differences. */
  private final class Store {
    final Map<EntryKey, Difference.StoredEntry> entries = new HashMap<>();

    Difference move(WorkRecord record) {
      Difference difference =
          Difference.between(new ArrayList<>(entries.values()), world.projector().project(record));
      for (Difference.EntryChange change : difference.entries()) {
        Map<RenderingId, Difference.StoredFace> faces = new HashMap<>();
        Difference.StoredEntry before = entries.get(change.key());
        if (before != null) {
          faces.putAll(before.faces());
        }
        for (Difference.FaceChange face : change.faces()) {
          String content =
              face.canonical().orElseGet(() -> faces.get(face.rendering()).canonical());
          faces.put(
              face.rendering(),
              new Difference.StoredFace(face.canonical().isPresent(), content, face.sequence()));
        }
        entries.put(
            change.key(),
            new Difference.StoredEntry(
                change.key(),
                change.entry().isPresent() ? Difference.State.LIVE : Difference.State.GONE,
                change.sequence(),
                faces));
      }
      return difference;
    }
  }

  @Test
  public void theSameRecordChangesNothing() {
    Store store = new Store();
    assertThat(store.move(ticket().build()).entries()).hasSize(4);
    assertThat(store.move(ticket().build()).isEmpty()).isTrue();
  }

  @Test
  public void aMovedDueTimeRaisesEverySequence() {
    Store store = new Store();
    store.move(ticket().build());
    Difference moved = store.move(ticket().due(Worlds.dueAt("2026-11-27T16:00")).build());
    assertThat(moved.entries()).hasSize(4);
    assertThat(moved.entries())
        .allMatch(c -> c.move() == Difference.Move.CHANGED)
        .allMatch(c -> c.faces().get(0).sequence() == 1);
  }

  @Test
  public void aNewTitleMovesOnlyWhoSeesItAndNoSequence() {
    Store store = new Store();
    store.move(ticket().build());
    Difference retitled =
        store.move(ticket().detail(DetailKey.TITLE, DetailValue.of("Loose paddle")).build());
    assertThat(retitled.entries())
        .as("own, team, due times; the master asks for no title")
        .hasSize(3);
    assertThat(retitled.entries()).allMatch(c -> c.faces().get(0).sequence() == 0);
  }

  @Test
  public void aHiddenDetailMovesNothing() {
    Store store = new Store();
    store.move(ticket().build());
    Difference quote =
        store.move(
            ticket()
                .detail(DetailKey.QUOTE, DetailValue.of("200"))
                .detail(DetailKey.PHONE, DetailValue.of("0555").withFor(ForSet.OFFICE))
                .build());
    assertThat(quote.isEmpty()).isTrue();
  }

  @Test
  public void handedAwayAndBackKeepsTheEntryAndItsSequenceRises() {
    Store store = new Store();
    store.move(ticket().build());
    EntryKey inesOwn =
        store.entries.keySet().stream()
            .filter(key -> key.calendar().equals(Worlds.own(2)))
            .findFirst()
            .orElseThrow();
    Difference away = store.move(ticket().assignments(List.of(Worlds.lead(3, Worlds.NOW))).build());
    assertThat(find(away, inesOwn).move()).isEqualTo(Difference.Move.TAKEN_OFF);
    Difference back = store.move(ticket().build());
    Difference.EntryChange change = find(back, inesOwn);
    assertThat(change.move()).isEqualTo(Difference.Move.PUT_BACK);
    assertThat(change.faces().get(0).sequence()).isEqualTo(1);
  }

  @Test
  public void finishedWorkGoesAsEachRuleSaysAndComesBack() {
    Store store = new Store();
    store.move(ticket().build());
    Difference done = store.move(ticket().state(State.DONE).build());
    assertThat(done.entries().stream().filter(c -> c.move() == Difference.Move.TAKEN_OFF))
        .hasSize(2);
    assertThat(done.entries().stream().filter(c -> c.move() == Difference.Move.CHANGED))
        .as("with a tick")
        .hasSize(2);
    Difference undone = store.move(ticket().build());
    assertThat(undone.entries().stream().filter(c -> c.move() == Difference.Move.PUT_BACK))
        .hasSize(2);
  }

  private static Difference.EntryChange find(Difference difference, EntryKey key) {
    Optional<Difference.EntryChange> found =
        difference.entries().stream().filter(c -> c.key().equals(key)).findFirst();
    return found.orElseThrow(() -> new AssertionError("no change of " + key));
  }
}
