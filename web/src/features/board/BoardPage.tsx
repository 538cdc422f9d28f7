import { Button, Checkbox, Modal, Popover, Segmented } from 'antd';
import type { Dayjs } from 'dayjs';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { daysBetween, dueText, spanText, today, viewerZone } from '../../shared/time';
import { eyes } from '../../shared/api/client';
import { useCalendars } from '../../shared/api/house';
import { Picker } from '../../shared/ui/Moments';
import { Choice } from '../../shared/ui/Choice';
import { errorText } from '../../shared/api/client';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import { usePaperKey } from '../../shared/ui/usePaperKey';
import { CoverCounts, CoverRows, useTakers } from '../cover';
import { Many, RecordSide } from '../records';
import { daysOf, placeOf, type Zoom } from './days';
import { Grid } from './Grid';
import { layBoard, type Board, type Grouping, type World } from './lanes';
import { useBoardData, useWorld } from './queries';
import { rowsOf } from './rows';
import styles from './board.module.css';
import { useBoardPage } from './useBoardPage';
import { useBoardActions } from './useBoardActions';
import { useMoves, type Conflict } from './useMoves';
import { words } from './words';

/** People as rows, time from left to right; the chosen record beside it. */
export function BoardPage({ mayMake }: { mayMake: boolean }) {
  const page = useBoardPage();
  const board = useBoardData(page.from, page.until, page.calendars);
  const world = useWorld();
  const beside = page.making || page.chosen !== null;
  const error = board.error ?? world.people.error ?? world.teams.error ?? world.places.error;
  const [people, teams, places] = [world.people.data, world.teams.data, world.places.data];
  return (
    <div className={`${styles.page} ${beside ? styles.beside : ''}`}>
      <section className={styles.main} aria-label={words.board}>
        <Bar page={page} mayMake={mayMake} beside={beside} />
        {error ? (
          <div className={styles.pad}>
            <Fault error={error} reads />
          </div>
        ) : board.data && people && teams && places ? (
          <Lanes
            page={page}
            mayMake={mayMake}
            board={board.data}
            people={people}
            teams={teams}
            places={places}
          />
        ) : (
          <Loading what={words.loading} />
        )}
      </section>
      {beside && (
        <aside className={styles.side} aria-label="Record">
          <RecordSide
            chosen={page.chosen}
            making={page.making}
            editing={page.editing}
            draft={page.draft}
            onClose={page.close}
            onEdit={() => page.chosen !== null && page.edit(page.chosen)}
            onOpen={page.open}
          />
        </aside>
      )}
    </div>
  );
}

type Page = ReturnType<typeof useBoardPage>;

function Bar({ page, mayMake, beside }: { page: Page; mayMake: boolean; beside: boolean }) {
  const [picking, setPicking] = useState(false);
  const paper = paperOf(page);
  useKeys({
    '[': () => page.turn(-1),
    ']': () => page.turn(1),
    t: page.toToday,
    '+': () => page.setZoom(nearer(page.zoom)),
    '-': () => page.setZoom(farther(page.zoom)),
    d: () => setPicking(true),
  });
  usePaperKey(!beside && paper);
  return (
    <div className={styles.bar}>
      <h1 className={styles.title}>{page.title}</h1>
      <div className={styles.turn}>
        <Button type="text" onClick={() => page.turn(-1)} aria-label={words.earlier}>
          ‹
        </Button>
        <Button type="text" onClick={page.toToday}>
          {words.today}
        </Button>
        <Button type="text" onClick={() => page.turn(1)} aria-label={words.later}>
          ›
        </Button>
        <Picker
          variant="borderless"
          aria-label={words.goTo}
          placeholder=""
          title={words.goTo}
          format="D MMM YYYY"
          value={null}
          open={picking}
          onOpenChange={setPicking}
          onChange={(date: Dayjs | null) => date && page.goTo(date.format('YYYY-MM-DD'))}
          className={styles.date}
          style={{ width: 76 }}
        />
      </div>
      <Segmented
        tabIndex={-1}
        aria-label={words.zoom}
        options={words.zooms}
        value={page.zoom}
        onChange={(zoom) => page.setZoom(zoom as Zoom)}
      />
      {beside ? (
        <Choice
          className={styles.narrowed}
          aria-label={words.grouping}
          options={words.groupings}
          value={page.grouping}
          onChange={(by) => page.setGrouping(by as Grouping)}
        />
      ) : (
        <Segmented
          tabIndex={-1}
          aria-label={words.grouping}
          options={words.groupings}
          value={page.grouping}
          onChange={(by) => page.setGrouping(by as Grouping)}
        />
      )}
      {!beside && <CalendarPicker page={page} />}
      {!beside && (
        <Link className={styles.quietLink} to={paper}>
          {words.onPaper}
        </Link>
      )}
      <span className={styles.grow} />
      {mayMake && !eyes() && !beside && <CoverCounts from={page.from} until={page.until} />}
      {mayMake && (
        <Button type="primary" onClick={() => page.make()}>
          {words.make}
        </Button>
      )}
    </div>
  );
}

/** The days that are shown, on paper; of one calendar where that is all that was put on the board. */
const paperOf = ({ from, until, calendars }: Page) =>
  `/board/paper?from=${from}&days=${Math.min(28, daysBetween(from, until))}` +
  (calendars.length === 1 ? `&of=calendar-${calendars[0]}` : '');

/** Which calendars lie on the board beside its people, side by side or overlaid. */
function CalendarPicker({ page }: { page: Page }) {
  const calendars = useCalendars();
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      content={
        <div className={styles.picker}>
          <Choice
            multiple
            aria-label={words.chooseCalendars}
            placeholder={words.chooseCalendars}
            value={calendars.data ? page.calendars : []}
            options={(calendars.data ?? []).map((c) => ({ value: c.id, label: c.name }))}
            onChange={page.setCalendars}
          />
          <Checkbox checked={page.overlaid} onChange={(e) => page.setOverlaid(e.target.checked)}>
            {words.overlay}
          </Checkbox>
        </div>
      }
    >
      <Button>
        {words.calendars}
        {page.calendars.length > 0 ? ` (${page.calendars.length})` : ''}
      </Button>
    </Popover>
  );
}

const ORDER: Zoom[] = ['day', 'week', 'weeks', 'season'];
const nearer = (zoom: Zoom) => ORDER[Math.max(0, ORDER.indexOf(zoom) - 1)]!;
const farther = (zoom: Zoom) => ORDER[Math.min(ORDER.length - 1, ORDER.indexOf(zoom) + 1)]!;

interface LanesProps extends World {
  page: Page;
  mayMake: boolean;
  board: Board;
}

function Lanes({ page, mayMake, board, people, teams, places }: LanesProps) {
  const days = useMemo(
    () => daysOf(page.zoom, page.from, board.zone || viewerZone),
    [page.zoom, page.from, board.zone],
  );
  const all = useCalendars();
  const onBoard = useMemo(
    () => ({
      calendars: (all.data ?? []).filter((c) => page.calendars.includes(c.id)),
      overlaid: page.overlaid,
    }),
    [all.data, page.calendars, page.overlaid],
  );
  const laid = useMemo(
    () => layBoard(board, { people, teams, places }, days, page.grouping, onBoard, words),
    [board, people, teams, places, days, page.grouping, onBoard],
  );
  const rows = useMemo(() => rowsOf(laid.nobody, laid.groups, days), [laid, days]);
  const codes = useMemo(() => new Map(places.map((p) => [p.id, p.code])), [places]);
  const shown = useMemo(
    () =>
      new Map(rows.flatMap((r) => (r.type === 'lane' ? r.lane.pieces.map((p) => [p.key, p]) : []))),
    [rows],
  );
  const moves = useMoves(shown, (id) => people.find((p) => p.id === id)?.name ?? '');
  const hands = useBoardActions(page, rows, days, moves, mayMake);
  const takers = useTakers(hands.held);
  const hint = takers.error ? words.takersFailed(errorText(takers.error)) : hands.hint;
  return (
    <>
      {hint && (
        <Hint
          said={hint}
          hands={hands}
          records={[...hands.chosen].flatMap((key) => shown.get(key)?.item.record ?? [])}
          mayMake={mayMake}
        />
      )}
      {people.length === 0 && <p className={styles.pad}>{words.noPeople}</p>}
      <Grid
        rows={rows}
        days={days}
        codes={codes}
        corner={words.corners[page.grouping]}
        todayAt={days.dates.indexOf(today())}
        open={page.chosen}
        chosen={hands.chosen}
        focus={hands.focus}
        onFocus={hands.setFocus}
        onOpen={(piece) => page.open(piece.item.record)}
        onChoose={hands.choose}
        onMake={hands.makeAt}
        onEnter={hands.enter}
        mayMove={(piece) => Boolean(piece.item.moves ?? piece.item.hands)}
        mayDraw={mayMake}
        over={
          mayMake && !eyes() && page.grouping !== 'place' ? (
            <CoverRows from={page.from} until={page.until} at={(moment) => placeOf(days, moment)} />
          ) : null
        }
        tell={hands.tell}
        onHold={hands.hold}
        takers={takers.data}
        onDrop={hands.drop}
        onDraw={hands.draw}
      />
      <Modal
        open={hands.asking}
        title={words.what}
        footer={null}
        width={340}
        onCancel={hands.stopAsking}
      >
        <div className={styles.actions}>
          {hands.actions.map(([key, label, act]) => (
            <Button
              key={label}
              onClick={() => {
                hands.stopAsking();
                act();
              }}
            >
              {label} <kbd>{key}</kbd>
            </Button>
          ))}
        </div>
      </Modal>
      <ConflictDialog conflict={moves.conflict} settle={moves.settle} />
    </>
  );
}

function ConflictDialog({
  conflict,
  settle,
}: {
  conflict: Conflict | null;
  settle: (mine: boolean) => void;
}) {
  const theirs = conflict?.theirs;
  const visit = theirs?.visits?.find((v) => v.no === conflict?.item.visit);
  return (
    <Modal
      open={conflict !== null}
      title={words.conflict}
      okText={words.takeMine}
      cancelText={words.leaveTheirs}
      onOk={() => settle(true)}
      onCancel={() => settle(false)}
    >
      <dl className={styles.compare}>
        <dt>{words.theirs}</dt>
        <dd>
          {[
            theirs?.ref,
            theirs?.title,
            (visit && (visit.start ?? visit.first) ? spanText(visit) : '') || dueText(theirs?.due),
            (theirs?.people ?? []).map((p) => `${p.name} ${p.roleName}`).join(', '),
          ]
            .filter(Boolean)
            .join(' · ')}
        </dd>
        <dt>{words.mine}</dt>
        <dd>{conflict?.mine}</dd>
      </dl>
    </Modal>
  );
}

/** What the keys act on, and what can be done with all that is chosen. */
function Hint({
  said,
  hands,
  records,
  mayMake,
}: {
  said: string;
  hands: ReturnType<typeof useBoardActions>;
  records: number[];
  mayMake: boolean;
}) {
  return (
    <div className={styles.hint} role="status">
      {said}
      <span className={styles.grow} />
      {hands.chosen.size > 0 && (
        <>
          {mayMake && <Many bare chosen={records} onNone={hands.dropChosen} />}
          <Button size="small" onClick={hands.copyOn}>
            {words.copyOn}
          </Button>
          <Button size="small" type="text" onClick={hands.dropChosen}>
            {words.dropChosen}
          </Button>
        </>
      )}
    </div>
  );
}
