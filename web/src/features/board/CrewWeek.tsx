import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import {
  addDays,
  dayNumber,
  daysText,
  mondayOf,
  today,
  viewerZone,
  weekdayText,
} from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Paper } from '../../shared/ui/Paper';
import { CoverSummary } from '../cover';
import styles from './board.module.css';
import { daysOf, type Days } from './days';
import { layBoard, type Board, type Lane, type World } from './lanes';
import { clock, hours } from './lane';
import { useBoardData, useWorld } from './queries';
import { words } from './words';

const WEEK = 7;

/** A week of the crew and what is short in it, on paper. */
export function CrewWeek() {
  const [search] = useSearchParams();
  const from = mondayOf(search.get('from') ?? today());
  const until = addDays(from, WEEK);
  const board = useBoardData(from, until, []);
  const world = useWorld();
  const error = board.error ?? world.people.error ?? world.teams.error ?? world.places.error;
  const [people, teams, places] = [world.people.data, world.teams.data, world.places.data];
  if (error) {
    return <Fault error={error} again={() => void board.refetch()} />;
  }
  if (!board.data || !people || !teams || !places) {
    return <Loading what={words.loading} />;
  }
  return (
    <Paper
      back={{ to: `/board?from=${from}`, name: words.backToBoard }}
      title={words.crewWeek}
      about={daysText(from, addDays(until, -1))}
    >
      <CoverSummary from={from} />
      <Weeks board={board.data} from={from} people={people} teams={teams} places={places} />
    </Paper>
  );
}

function Weeks({ board, from, people, teams, places }: World & { board: Board; from: string }) {
  const days = useMemo(() => daysOf('week', from, board.zone || viewerZone), [from, board.zone]);
  const { nobody, groups } = useMemo(
    () =>
      layBoard(
        board,
        { people, teams, places },
        days,
        'team',
        { calendars: [], overlaid: false },
        words,
      ),
    [board, people, teams, places, days],
  );
  const codes = new Map(places.map((p) => [p.id, p.code]));
  return (
    <table className={styles.paperWeek}>
      <thead>
        <tr>
          <th scope="col">{words.corners.team}</th>
          {days.dates.map((day) => (
            <th key={day} scope="col">
              {weekdayText(day)} {dayNumber(day)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <Row lane={nobody} days={days} codes={codes} />
      </tbody>
      {groups.map((group) => (
        <tbody key={group.key}>
          <tr>
            <th scope="rowgroup" colSpan={days.dates.length + 1}>
              {group.name}
            </th>
          </tr>
          {group.lanes.map((lane) => (
            <Row key={lane.key} lane={lane} days={days} codes={codes} />
          ))}
        </tbody>
      ))}
    </table>
  );
}

function Row({ lane, days, codes }: { lane: Lane; days: Days; codes: Map<number, string> }) {
  return (
    <tr>
      <th scope="row">
        {lane.name}
        {lane.person !== null && <span>{words.hours(lane.hours)}</span>}
      </th>
      {days.dates.map((date, day) => {
        const pieces = lane.cells[day] ?? [];
        const empty = lane.empty[day] ?? '';
        return (
          <td key={date}>
            {pieces.map((one) => (
              <div key={one.key} className={one.tentative ? styles.paperPerhaps : undefined}>
                {[
                  one.shape === 'shift' ? hours(one) : one.shape !== 'deadline' && clock(one),
                  one.shape !== 'shift' && one.item.place != null && codes.get(one.item.place),
                  one.done && '✓',
                  one.item.title ?? words.work,
                ]
                  .filter(Boolean)
                  .join(' ')}
              </div>
            ))}
            {pieces.length === 0 && empty !== 'free' && <i>{words.empty[empty]}</i>}
          </td>
        );
      })}
    </tr>
  );
}
