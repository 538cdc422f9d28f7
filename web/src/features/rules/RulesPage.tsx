import { Button, Segmented } from 'antd';
import { useEffect, useRef } from 'react';
import { useLocation, useNavigate, useSearchParams } from 'react-router';
import type { Schemas } from '../../shared/api/client';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import { DetailsTab } from './DetailsTab';
import { LookFirst } from './LookFirst';
import { useNames, type World } from './queries';
import { RuleRow } from './RuleRow';
import styles from './rules.module.css';
import { useSetFile } from './SetFile';
import { TryRecord } from './TryRecord';
import { detailChoice } from './model';
import { useRules, type WishedFor } from './useRules';
import { Wordings } from './Wordings';
import { WorkStrip } from './WorkStrip';
import { words } from './words';

/** The rules as sentences in their order, edited where they stand; nothing before a look. */
export function RulesPage() {
  const page = useRules();
  const world = useNames();
  const [search, setSearch] = useSearchParams();
  const tab = search.get('tab') ?? 'rules';
  const file = useSetFile(page.bringIn);
  useWished(page);
  useKeys({ a: page.add, L: () => page.count > 0 && page.lookFirst() });
  if (page.now.isPending) {
    return <Loading what={words.loading} />;
  }
  if (page.now.error) {
    return <Fault error={page.now.error} reads />;
  }
  // Details are named as they are edited here, before they are in force.
  const drafted = {
    ...world,
    details: (page.set?.details ?? []).map(detailChoice),
    names: {
      ...world.names,
      detail: (key: string) => page.set?.details.find((d) => d.key === key)?.label ?? key,
    },
  };
  return (
    <div className={styles.page}>
      <section className={styles.left} aria-label={words.heading}>
        <div className={styles.bar}>
          <h1 className={styles.heading}>{words.heading}</h1>
          <Segmented
            value={tab}
            options={words.tabs}
            onChange={(value) => setSearch(value === 'rules' ? {} : { tab: value })}
          />
          {tab === 'rules' && <span className={styles.quiet}>{words.order}</span>}
          <span className={styles.grow} />
          {file.menu}
          {tab === 'rules' && <Button onClick={page.add}>{words.fresh}</Button>}
          {tab === 'wordings' && <Button onClick={page.addWording}>{words.freshWording}</Button>}
          {tab === 'details' && <Button onClick={page.addDetail}>{words.freshDetail}</Button>}
        </div>
        <WorkStrip />
        {file.faults}
        {page.stale && <Stale page={page} />}
        {tab === 'rules' && (
          <Faults texts={[...page.faults].filter(([at]) => at.startsWith('/rules'))} />
        )}
        {tab === 'rules' && page.rules.length === 0 && (
          <div className={styles.empty}>
            <strong>{words.none}</strong>
            <p>{words.noneWhy}</p>
          </div>
        )}
        {tab === 'rules' ? (
          <RuleList page={page} world={drafted} now={page.now.data} />
        ) : tab === 'wordings' ? (
          <Wordings
            wordings={page.set?.wordings ?? []}
            rules={page.rules}
            usual={page.set?.usual ?? {}}
            fallback={page.now.data.fallback}
            titlesFixed={page.set?.titlesFixed ?? ''}
            world={drafted}
            faults={page.faults}
            onChange={page.setWording}
            onRemove={page.removeWording}
            onUsual={page.setUsual}
            onTitlesFixed={page.setTitlesFixed}
          />
        ) : (
          <DetailsTab
            details={page.set?.details ?? []}
            world={drafted}
            faults={page.faults}
            onChange={page.setDetail}
            onLabel={page.labelDetail}
            onMove={page.moveDetail}
            onRemove={page.removeDetail}
          />
        )}
        {page.count > 0 && <Edited page={page} />}
      </section>
      <aside className={styles.side}>
        {page.wish && <TryRecord set={page.wish} show={tab === 'rules' ? 'landings' : 'entries'} />}
      </aside>
      <LookFirst
        open={page.looking && !page.stale}
        preview={page.preview}
        error={page.lookError}
        taking={page.taking}
        from={page.from}
        onFrom={page.setFrom}
        onTake={page.take}
        onLeave={page.stopLooking}
      />
    </div>
  );
}

type Page = ReturnType<typeof useRules>;

/** Takes up, once, what another page wished. */
function useWished(page: Page) {
  const { pathname, search, state } = useLocation();
  const wished = (state as { wished?: WishedFor } | null)?.wished;
  const navigate = useNavigate();
  const taken = useRef<WishedFor | undefined>(undefined);
  useEffect(() => {
    if (wished && page.set && taken.current !== wished) {
      taken.current = wished;
      void navigate(pathname + search, { replace: true, state: null });
      page.lookFor(wished);
    }
  });
}

/** Somebody else changed the set meanwhile. */
function Stale({ page }: { page: Page }) {
  return (
    <p className={styles.stale} role="alert">
      {words.changedMeanwhile}
      <Button
        type="link"
        onClick={() => {
          page.drop();
          void page.now.refetch();
        }}
      >
        {words.fetchAgain}
      </Button>
    </p>
  );
}

function RuleList({ page, world, now }: { page: Page; world: World; now: Schemas['RuleSet'] }) {
  const dragged = useRef<number | null>(null);
  const counts = new Map(now.counts.map((one) => [one.rule, one]));
  const known = new Set(now.rules.map((rule) => rule.id));
  return (
    <ol className={styles.rules}>
      {page.rules.map((rule, at) => (
        <RuleRow
          key={rule.id ?? `new${at}`}
          rule={rule}
          number={at + 1}
          count={
            rule.id !== undefined && known.has(rule.id)
              ? (counts.get(rule.id) ?? { entries: 0, calendars: 0 })
              : null
          }
          wordings={page.set?.wordings ?? []}
          world={world}
          chosen={page.chosen === at}
          onChoose={() => page.choose(at)}
          onChange={(next) => page.setRule(at, next)}
          onCopy={() => page.copy(at)}
          onRemove={() => page.remove(at)}
          onMove={(step) => page.move(at, step)}
          drag={{
            onStart: () => {
              dragged.current = at;
            },
            onOver: () => {
              if (dragged.current !== null && dragged.current !== at) {
                page.move(dragged.current, at - dragged.current);
                dragged.current = at;
              }
            },
            onEnd: () => {
              dragged.current = null;
            },
          }}
        />
      ))}
    </ol>
  );
}

function Edited({ page }: { page: Page }) {
  return (
    <div className={styles.tray} role="status">
      <span className={styles.dot} aria-hidden="true" />
      <strong>{words.edited(page.count)}</strong>
      <span className={styles.grow} />
      <Button onClick={page.drop}>{words.leave}</Button>
      <Button onClick={page.undo}>{words.undoEdit}</Button>
      <Button type="primary" loading={page.isLooking} onClick={page.lookFirst}>
        {words.lookFirst}
      </Button>
    </div>
  );
}

function Faults({ texts }: { texts: [string, string][] }) {
  return texts.length === 0 ? null : (
    <ul className={styles.faults} role="alert">
      {texts.map(([at, message]) => (
        <li key={at}>
          {words.rule(Number(at.split('/')[2]) + 1)}: {message}
        </li>
      ))}
    </ul>
  );
}
