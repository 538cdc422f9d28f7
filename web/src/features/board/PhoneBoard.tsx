import { Button } from 'antd';
import { useMemo, type ReactNode } from 'react';
import { useCalendars } from '../../shared/api/house';
import { eyes } from '../../shared/api/client';
import { clockOf, localAt, viewerZone } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useSwipe } from '../../shared/ui/useSwipe';
import { CoverCounts } from '../cover';
import { RecordSide } from '../records';
import styles from './board.module.css';
import { daysOf, type Days } from './days';
import { whenOf } from './lane';
import type { Board, Lane, World } from './lanes';
import { part, parts, type Calendars } from './part';
import { useBoardData, useWorld } from './queries';
import { useBoardPage } from './useBoardPage';
import { words } from './words';

/** One day of the crew, of a team, a person, a place or a calendar, as a list; for a phone. */
export function PhoneBoard({ mayMake }: { mayMake: boolean }) {
  const page = useBoardPage('day');
  const { of } = page;
  const board = useBoardData(page.from, page.until, of.sort === 'calendar' ? [of.id] : []);
  const world = useWorld();
  const calendars = useCalendars();
  const swipe = useSwipe(page.turn);
  const reads = [board, world.people, world.teams, world.places, calendars];
  const failed = reads.find((one) => one.error);
  const [people, teams, places] = [world.people.data, world.teams.data, world.places.data];
  if (page.making || page.chosen !== null) {
    return (
      <RecordSide
        chosen={page.chosen}
        making={page.making}
        editing={page.editing}
        draft={page.draft}
        onClose={page.close}
        onEdit={() => page.chosen !== null && page.edit(page.chosen)}
        onOpen={page.open}
      />
    );
  }
  const loaded = board.data && people && teams && places && calendars.data;
  return (
    <div className={styles.phone} {...swipe}>
      <Bar page={page} mayMake={mayMake}>
        {loaded && (
          <Choice
            className={styles.phoneOf}
            aria-label={words.showWhat}
            value={of.id ? `${of.sort}-${of.id}` : 'crew-0'}
            options={parts({ people, teams, places }, calendars.data)}
            onChange={page.setOf}
          />
        )}
      </Bar>
      {failed?.error ? (
        <Fault error={failed.error} reads />
      ) : loaded ? (
        <Lanes
          page={page}
          board={board.data}
          world={{ people, teams, places }}
          calendars={calendars.data}
        />
      ) : (
        <Loading what={words.loading} />
      )}
    </div>
  );
}

type Page = ReturnType<typeof useBoardPage>;

function Bar({ page, mayMake, children }: { page: Page; mayMake: boolean; children: ReactNode }) {
  return (
    <header className={styles.phoneBar}>
      <div className={styles.phoneDay}>
        <Button type="text" onClick={() => page.turn(-1)} aria-label={words.earlier}>
          ‹
        </Button>
        <h1>{page.title}</h1>
        <Button type="text" onClick={() => page.turn(1)} aria-label={words.later}>
          ›
        </Button>
        <Button type="text" onClick={page.toToday}>
          {words.today}
        </Button>
      </div>
      <div className={styles.phoneDay}>
        {children}
        {mayMake && (
          <Button type="primary" onClick={() => page.make()}>
            {words.make}
          </Button>
        )}
      </div>
      {mayMake && !eyes() && <CoverCounts from={page.from} until={page.until} />}
    </header>
  );
}

function Lanes({
  page,
  board,
  world,
  calendars,
}: {
  page: Page;
  board: Board;
  world: World;
  calendars: Calendars;
}) {
  const { sort, id } = page.of;
  const days = useMemo(
    () => daysOf('day', page.from, board.zone || viewerZone),
    [page.from, board.zone],
  );
  const found = useMemo(
    () => part(board, world, calendars, days, { sort, id }),
    [board, world, calendars, days, sort, id],
  );
  if (!found) {
    return <p className={styles.pad}>{words.nothingToPrint}</p>;
  }
  const { nobody, groups, one } = found;
  return (
    <>
      {nobody && nobody.cells[0]?.length !== 0 && (
        <section className={styles.phoneGroup} aria-label={nobody.name}>
          <h2>{nobody.name}</h2>
          <Pieces lane={nobody} world={world} days={days} onOpen={page.open} />
        </section>
      )}
      {one && (
        <section className={styles.phoneGroup} aria-label={one.name}>
          <PhoneLane lane={one} world={world} days={days} onOpen={page.open} />
        </section>
      )}
      {groups.map((group) => (
        <section key={group.key} className={styles.phoneGroup} aria-label={group.name}>
          <h2>
            {group.name} <span>{group.count}</span>
          </h2>
          {group.lanes.map((lane) => (
            <PhoneLane key={lane.key} lane={lane} world={world} days={days} onOpen={page.open} />
          ))}
        </section>
      ))}
    </>
  );
}

interface LaneProps {
  lane: Lane;
  world: World;
  days: Days;
  onOpen: (record: number) => void;
}

function PhoneLane({ lane, ...rest }: LaneProps) {
  const empty = lane.cells[0]?.length === 0 ? words.empty[lane.empty[0] ?? ''] : '';
  return (
    <div className={styles.phoneLane}>
      <h3>
        {lane.name}
        <span>{lane.hours > 0 ? words.hours(lane.hours) : empty}</span>
      </h3>
      <Pieces lane={lane} {...rest} />
    </div>
  );
}

function Pieces({ lane, world, days, onOpen }: LaneProps) {
  const at = (moment: number) => clockOf(localAt(moment, days.zone));
  return (
    <>
      <ul>
        {(lane.cells[0] ?? []).map((one) => (
          <li key={one.key}>
            <button
              type="button"
              className={one.tentative ? styles.phonePerhaps : undefined}
              style={{ borderLeftColor: `var(--${one.hue})` }}
              onClick={() => onOpen(one.item.record)}
            >
              <span className="number">{whenOf(one)}</span>
              <span>
                {one.done && '✓ '}
                <strong>{one.item.title ?? words.work}</strong>
                <small>
                  {[
                    one.item.ref,
                    world.places.find((place) => place.id === one.item.place)?.name,
                    one.tentative && words.tentative,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </small>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {lane.twice.map((both) => (
        <p key={both.from} className={styles.phoneClash}>
          {words.twice(at(both.from), at(both.to))}
        </p>
      ))}
    </>
  );
}
