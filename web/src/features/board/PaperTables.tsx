import { dayNumber, shortDayText, weekdayText } from '../../shared/time';
import paper from '../../shared/ui/paper.module.css';
import styles from './board.module.css';
import type { Days } from './days';
import { hours, whenOf } from './lane';
import { working, type Lane, type Piece, type World } from './lanes';
import type { Part } from './part';
import { words } from './words';

const WEEK = 7;

/** People as rows, seven days beside each other and the next seven below them. */
export function Weeks({ part, days, world }: { part: Part; days: Days; world: World }) {
  const weeks = Array.from({ length: Math.ceil(days.dates.length / WEEK) }, (_, n) => n * WEEK);
  return weeks.map((first) => (
    <Week key={first} part={part} days={days} world={world} first={first} />
  ));
}

function Week({
  part: { nobody, groups },
  days,
  world,
  first,
}: {
  part: Part;
  days: Days;
  world: World;
  first: number;
}) {
  const dates = days.dates.slice(first, first + WEEK);
  const row = (lane: Lane) => (
    <Row key={lane.key} lane={lane} first={first} count={dates.length} days={days} world={world} />
  );
  return (
    <table className={paper.cells}>
      <thead>
        <tr>
          <th scope="col">{words.corners.team}</th>
          {dates.map((day) => (
            <th key={day} scope="col">
              {weekdayText(day)} {dayNumber(day)}
            </th>
          ))}
        </tr>
      </thead>
      {nobody && <tbody>{row(nobody)}</tbody>}
      {groups.map((group) => (
        <tbody key={group.key}>
          <tr>
            <th scope="rowgroup" colSpan={dates.length + 1}>
              {group.name}
            </th>
          </tr>
          {group.lanes.map(row)}
        </tbody>
      ))}
    </table>
  );
}

function Row({
  lane,
  first,
  count,
  days,
  world,
}: {
  lane: Lane;
  first: number;
  count: number;
  days: Days;
  world: World;
}) {
  // One day has room for all that is known of it.
  const whole = days.dates.length === 1;
  return (
    <tr>
      <th scope="row">
        {lane.name}
        {lane.hours > 0 && lane.person !== null && <span>{words.hours(lane.hours)}</span>}
      </th>
      {lane.cells.slice(first, first + count).map((pieces, at) => {
        const empty = lane.empty[first + at] ?? '';
        return (
          <td key={first + at}>
            {pieces.map((one) => (
              <div key={one.key} className={one.tentative ? styles.paperPerhaps : undefined}>
                {whole ? <Line piece={one} lane={lane} world={world} /> : short(one, world)}
              </div>
            ))}
            {pieces.length === 0 && empty !== 'free' && <i>{words.empty[empty]}</i>}
          </td>
        );
      })}
    </tr>
  );
}

/** When, with its end where there is room for it. */
const spanOf = (piece: Piece) =>
  piece.shape === 'job' && !piece.allDay ? hours(piece) : whenOf(piece);

const placeOf = (piece: Piece, { places }: World) =>
  places.find((one) => one.id === piece.item.place);

function short(piece: Piece, world: World): string {
  return [
    whenOf(piece),
    piece.shape !== 'shift' && placeOf(piece, world)?.code,
    piece.done && '✓',
    piece.item.title ?? words.work,
  ]
    .filter(Boolean)
    .join(' ');
}

/** Who is on it, but for the one whose lane it is. */
function withWhom(piece: Piece, lane: Lane, { people, teams }: World): string {
  const names = [
    ...working(piece.item)
      .filter((id) => id !== lane.person)
      .map((id) => people.find((one) => one.id === id)?.name),
    ...(piece.item.people ?? []).map((on) => teams.find((one) => one.id === on.team)?.name),
  ];
  return [...new Set(names.filter((name) => name !== undefined))].join(', ');
}

function Line({ piece, lane, world }: { piece: Piece; lane: Lane; world: World }) {
  const others = withWhom(piece, lane, world);
  return (
    <>
      <b>{spanOf(piece)}</b>{' '}
      {[
        piece.done && '✓',
        piece.item.ref,
        piece.item.title ?? words.work,
        placeOf(piece, world)?.name,
        others && words.withOthers(others),
        piece.tentative && words.tentative,
      ]
        .filter(Boolean)
        .join(' · ')}
    </>
  );
}

/** One lane, day by day, with all that is known of each piece of work. */
export function Agenda({ lane, days, world }: { lane: Lane; days: Days; world: World }) {
  return (
    <table className={styles.paperDays}>
      <thead>
        <tr>
          {words.paperColumns(lane.person !== null).map((name) => (
            <th key={name} scope="col">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      {days.dates.map((date, day) => {
        const pieces = lane.cells[day] ?? [];
        const empty = lane.empty[day] ?? '';
        return (
          <tbody key={date}>
            {pieces.length === 0 && (
              <tr>
                <th scope="row">{shortDayText(date)}</th>
                <td colSpan={4}>
                  <i>{empty === 'free' || empty === '' ? words.noWork : words.empty[empty]}</i>
                </td>
              </tr>
            )}
            {pieces.map((one, at) => (
              <tr key={one.key}>
                {at === 0 ? <th scope="row">{shortDayText(date)}</th> : <td />}
                <td>{spanOf(one)}</td>
                <td>
                  {[one.done && '✓', one.item.ref, one.item.title ?? words.work]
                    .filter(Boolean)
                    .join(' ')}
                  {one.tentative && ` (${words.tentative})`}
                </td>
                <td>{placeOf(one, world)?.name}</td>
                <td>{withWhom(one, lane, world)}</td>
              </tr>
            ))}
          </tbody>
        );
      })}
    </table>
  );
}
