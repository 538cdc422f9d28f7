import { Button, Segmented } from 'antd';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { addDays, daysText, mondayOf, today } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
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
  useKeys({ '[': () => go(-1), ']': () => go(1), t: () => set({ from: mondayOf(today()) }) });
  if (cover.isPending) {
    return <Loading what={words.loading} />;
  }
  if (cover.error) {
    return <Fault error={cover.error} again={() => void cover.refetch()} />;
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
          <Segmented
            aria-label={words.zoom}
            value={zoom}
            options={words.zooms}
            onChange={(value) => set({ zoom: value })}
          />
          <Button size="small" aria-label={words.earlier} onClick={() => go(-1)}>
            ‹
          </Button>
          <Button size="small" onClick={() => set({ from: mondayOf(today()) })}>
            {words.today}
          </Button>
          <Button size="small" aria-label={words.later} onClick={() => go(1)}>
            ›
          </Button>
          <span className={styles.grow} />
          <Link className={styles.printLink} to={`/board/print?from=${mondayOf(from)}`}>
            {words.print}
          </Link>
          <Button
            size="small"
            aria-pressed={load}
            onClick={() => setSearch({ from, zoom, ...(!load && { load: '1' }) })}
          >
            {words.hoursOf}
          </Button>
          {mayRule && asks.length > 0 && (
            <Button size="small" onClick={() => setDutyOpen({ id: null })}>
              {words.newDuty}
            </Button>
          )}
          <span className={styles.share}>
            {cover.data.sharePerMille === undefined
              ? words.noShare
              : words.share(cover.data.sharePerMille)}
          </span>
        </div>
        {asks.length === 0 ? (
          <div className={styles.empty}>
            <strong>{words.noDuties}</strong>
            <p>{words.noDutiesWhy}</p>
            {mayRule && (
              <Button type="primary" onClick={() => setDutyOpen({ id: null })}>
                {words.newDuty}
              </Button>
            )}
          </div>
        ) : (
          <Bands
            cover={cover.data}
            chosen={other ? undefined : gap}
            onChoose={(one) => choose(gapKey(one))}
            onChange={mayRule ? (id) => setDutyOpen({ id }) : undefined}
          />
        )}
        {away > 0 ? (
          <LeftPart
            person={away}
            name={search.get('who') ?? ''}
            from={search.get('first') ?? from}
            last={search.get('last') ?? from}
            until={addDays(search.get('last') ?? from, 1)}
            onClose={() => setSearch({ from, zoom })}
          />
        ) : load ? (
          <LoadPart from={from} until={until} onClose={() => setSearch({ from, zoom })} />
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
