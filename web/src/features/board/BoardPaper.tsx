import { Button, Segmented } from 'antd';
import type { Dayjs } from 'dayjs';
import { useMemo } from 'react';
import { useCalendars } from '../../shared/api/house';
import { addDays, daysText, today, viewerZone } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { useKeys } from '../../shared/ui/keys';
import { Loading } from '../../shared/ui/Loading';
import { Picker } from '../../shared/ui/Moments';
import { Paper } from '../../shared/ui/Paper';
import { CoverSummary } from '../cover';
import styles from './board.module.css';
import { daysOf } from './days';
import type { Board, World } from './lanes';
import { part, parts, type Calendars } from './part';
import { Agenda, Weeks } from './PaperTables';
import { useBoardData, useWorld } from './queries';
import { usePaper } from './usePaper';
import { words } from './words';

type Sheet = ReturnType<typeof usePaper>;

/** Any span of the crew, of one team, person, place or calendar, on paper. */
export function BoardPaper({ mayMake }: { mayMake: boolean }) {
  const sheet = usePaper();
  const { of, from, until } = sheet;
  const board = useBoardData(from, until, of.sort === 'calendar' ? [of.id] : []);
  const world = useWorld();
  const calendars = useCalendars();
  const reads = [board, world.people, world.teams, world.places, calendars];
  const failed = reads.find((one) => one.error);
  const [people, teams, places] = [world.people.data, world.teams.data, world.places.data];
  if (failed?.error) {
    return <Fault error={failed.error} reads />;
  }
  if (!board.data || board.data.from !== from || !people || !teams || !places || !calendars.data) {
    return <Loading what={words.loading} />;
  }
  return (
    <Printed
      sheet={sheet}
      board={board.data}
      world={{ people, teams, places }}
      calendars={calendars.data}
      mayMake={mayMake}
    />
  );
}

function Printed({
  sheet,
  board,
  world,
  calendars,
  mayMake,
}: {
  sheet: Sheet;
  board: Board;
  world: World;
  calendars: Calendars;
  mayMake: boolean;
}) {
  const { of, from, until } = sheet;
  const days = useMemo(
    () => daysOf('week', from, board.zone || viewerZone, sheet.days),
    [from, board.zone, sheet.days],
  );
  const found = useMemo(
    () => part(board, world, calendars, days, of),
    [board, world, calendars, days, of],
  );
  return (
    <Paper
      back={{ to: `/board?from=${from}`, name: words.backToBoard }}
      title={found?.name ?? words.nothingToPrint}
      about={daysText(from, addDays(until, -1))}
      across={sheet.days > 1 && !found?.one}
      controls={<Controls sheet={sheet} world={world} calendars={calendars} />}
    >
      {of.sort === 'crew' && mayMake && <CoverSummary from={from} until={until} />}
      {found?.one ? (
        <Agenda lane={found.one} days={days} world={world} />
      ) : (
        found && <Weeks part={found} days={days} world={world} />
      )}
    </Paper>
  );
}

/** Of whom or what, and of when; each team has its number. */
function Controls({
  sheet,
  world,
  calendars,
}: {
  sheet: Sheet;
  world: World;
  calendars: Calendars;
}) {
  const { of } = sheet;
  useKeys({
    '[': () => sheet.turn(-1),
    ']': () => sheet.turn(1),
    t: () => sheet.goTo(today()),
    '0': () => sheet.setOf(''),
    ...Object.fromEntries(
      world.teams
        .slice(0, 9)
        .map((team, at) => [`${at + 1}`, () => sheet.setOf(`team-${team.id}`)]),
    ),
  });
  return (
    <>
      <Choice
        className={styles.paperOf}
        aria-label={words.printWhat}
        value={of.id ? `${of.sort}-${of.id}` : 'crew-0'}
        options={parts(world, calendars)}
        onChange={sheet.setOf}
      />
      <Button type="text" onClick={() => sheet.turn(-1)} aria-label={words.earlier}>
        ‹
      </Button>
      <Picker
        variant="borderless"
        aria-label={words.goTo}
        placeholder={words.goTo}
        format="D MMM YYYY"
        value={null}
        onChange={(date: Dayjs | null) => date && sheet.goTo(date.format('YYYY-MM-DD'))}
      />
      <Button type="text" onClick={() => sheet.turn(1)} aria-label={words.later}>
        ›
      </Button>
      <Segmented
        aria-label={words.zoom}
        options={words.paperSpans}
        value={sheet.days}
        onChange={(value) => sheet.setDays(Number(value))}
      />
    </>
  );
}
