import { Button, Segmented } from 'antd';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { addDays, daysText, mondayOf, today } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import { usePaperKey } from '../../shared/ui/usePaperKey';
import { Bands } from './Bands';
import { ClashPart } from './ClashPart';
import { DutyDialog } from './DutyDialog';
import styles from './cover.module.css';
import { FillPart } from './FillPart';
import { LeftPart } from './LeftPart';
import { LoadPart } from './LoadPart';
import { useCover } from './queries';
import { WhoCould } from './WhoCould';
import { Wrong } from './Wrong';
import { gapKey, words } from './words';

const DAYS: Record<string, number> = { week: 7, weeks: 21, season: 91 };

/** Is the crew covered, and if not, who could: the gaps, the days, and everybody for the chosen one. */
export function CoverPage({ mayRule }: { mayRule: boolean }) {
  const [search, setSearch] = useSearchParams();
  const zoom = search.get('zoom') ?? 'week';
  const days = DAYS[zoom] ?? 7;
  const from = search.get('from') ?? mondayOf(today());
  const until = addDays(from, days);
  const cover = useCover(from, until);
  const [fills, setFills] = useState(false);
  const [dutyOpen, setDutyOpen] = useState<{ id: number | null } | null>(null);
  const set = (next: Record<string, string>) =>
    setSearch({ ...Object.fromEntries(search), ...next });
  const go = (by: number) => set({ from: addDays(from, by * (days > 21 ? 28 : 7)) });
  const toToday = () => set({ from: mondayOf(today()) });
  const paper = `/cover/paper?from=${from}&days=${days}`;
  usePaperKey(paper);
  useKeys({ '[': () => go(-1), ']': () => go(1), t: toToday });
  if (cover.isPending) {
    return <Loading what={words.loading} />;
  }
  if (cover.error) {
    return <Fault error={cover.error} reads />;
  }
  const { gaps, asks, clashes, pileUps } = cover.data;
  const asked = search.get('on');
  const clash = [...clashes, ...pileUps].find((one) => one.key === asked);
  const gap = clash ? undefined : (gaps.find((one) => gapKey(one) === asked) ?? gaps[0]);
  const ask = gap && asks.find((one) => one.key === gap.ask);
  const away = Number(search.get('away'));
  const load = search.get('load') === '1';
  // What is below the chart is about none of what is short or wrong.
  const other = fills || load || away > 0;
  const newDuty = mayRule ? () => setDutyOpen({ id: null }) : undefined;
  const closePart = () => setSearch({ from, zoom });
  const choose = (on: string) => {
    setFills(false);
    setSearch({ from, zoom, on });
  };
  return (
    <div className={styles.page}>
      <Wrong
        cover={cover.data}
        chosen={other ? undefined : (clash ?? gap)}
        onGap={(one) => choose(gapKey(one))}
        onClash={(one) => choose(one.key)}
        onFill={() => {
          setFills(true);
          setSearch({ from, zoom });
        }}
      />
      <div className={styles.main}>
        <div className={styles.bar}>
          <h2>{daysText(from, addDays(until, -1))}</h2>
          <Span zoom={zoom} onZoom={(value) => set({ zoom: value })} onGo={go} onToday={toToday} />
          <span className={styles.grow} />
          <Link className={styles.printLink} to={paper}>
            {words.print}
          </Link>
          <Button
            size="small"
            aria-pressed={load}
            onClick={() => setSearch({ from, zoom, ...(!load && { load: '1' }) })}
          >
            {words.hoursOf}
          </Button>
          {newDuty && asks.length > 0 && (
            <Button size="small" onClick={newDuty}>
              {words.newDuty}
            </Button>
          )}
          <Share perMille={cover.data.sharePerMille} />
        </div>
        {asks.length === 0 ? (
          <NoDuties onMake={newDuty} />
        ) : (
          <Bands
            cover={cover.data}
            chosen={other ? undefined : gap}
            onChoose={(one) => choose(gapKey(one))}
            onChange={mayRule ? (id) => setDutyOpen({ id }) : undefined}
          />
        )}
        {away > 0 ? (
          <Left person={away} search={search} from={from} onClose={closePart} />
        ) : load ? (
          <LoadPart from={from} until={until} onClose={closePart} />
        ) : fills ? (
          <FillPart from={from} until={until} asks={asks} onClose={() => setFills(false)} />
        ) : (
          <>
            {clash && <ClashPart key={clash.key} clash={clash} from={from} until={until} />}
            {gap && ask && <WhoCould key={gapKey(gap)} gap={gap} ask={ask} />}
          </>
        )}
        {dutyOpen && <DutyDialog id={dutyOpen.id} onClose={() => setDutyOpen(null)} />}
      </div>
    </div>
  );
}

function Share({ perMille }: { perMille: number | undefined }) {
  return (
    <span className={styles.share}>
      {perMille === undefined ? words.noShare : words.share(perMille)}
    </span>
  );
}

/** Which days are shown. */
function Span({
  zoom,
  onZoom,
  onGo,
  onToday,
}: {
  zoom: string;
  onZoom: (zoom: string) => void;
  onGo: (by: number) => void;
  onToday: () => void;
}) {
  return (
    <>
      <Segmented aria-label={words.zoom} value={zoom} options={words.zooms} onChange={onZoom} />
      <Button size="small" aria-label={words.earlier} onClick={() => onGo(-1)}>
        ‹
      </Button>
      <Button size="small" onClick={onToday}>
        {words.today}
      </Button>
      <Button size="small" aria-label={words.later} onClick={() => onGo(1)}>
        ›
      </Button>
    </>
  );
}

function NoDuties({ onMake }: { onMake?: () => void }) {
  return (
    <div className={styles.empty}>
      <strong>{words.noDuties}</strong>
      <p>{words.noDutiesWhy}</p>
      {onMake && (
        <Button type="primary" onClick={onMake}>
          {words.newDuty}
        </Button>
      )}
    </div>
  );
}

/** What somebody who is away leaves, by the address that led here. */
function Left({
  person,
  search,
  from,
  onClose,
}: {
  person: number;
  search: URLSearchParams;
  from: string;
  onClose: () => void;
}) {
  const last = search.get('last') ?? from;
  return (
    <LeftPart
      person={person}
      name={search.get('who') ?? ''}
      from={search.get('first') ?? from}
      last={last}
      until={addDays(last, 1)}
      hours={search.get('hours')}
      onClose={onClose}
    />
  );
}
