import { AutoComplete, Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { errorText } from '../../shared/api/client';
import { momentText, shortSpanText } from '../../shared/time';
import { useTray } from '../../shared/ui/tray';
import { Table } from '../../shared/ui/Table';
import { Candidates } from './Candidates';
import { usualReasons } from '../../shared/words';
import styles from './cover.module.css';
import { SwapPart } from './SwapPart';
import { useCoverDeeds, useWhoCouldTake, type Clash, type ClashItem, type Held } from './queries';
import { clashText, words } from './words';

/** Two ways out of having it. */
const WAYS = ['handOver', 'swap'] as const;

/** One clash: what is in it, who could take it over, and letting it stand with a reason. */
export function ClashPart({ clash, from, until }: { clash: Clash; from: string; until: string }) {
  const [taken, setTaken] = useState<{ item: ClashItem; way: 'handOver' | 'swap' } | null>(null);
  const held = (item: ClashItem): Held | null =>
    clash.person && item.record && item.visit
      ? { record: item.record, visit: item.visit, from: clash.person }
      : null;
  const chosen = taken && held(taken.item);
  const what = (item: ClashItem) => item.ref ?? item.title ?? words.work;
  return (
    <section className={styles.who} aria-label={words.clash}>
      <h2>
        {clash.name ?? words.aPlace}, {clashText(clash)}{' '}
        <span>{clash.never ? words.isNever : words.warns}</span>
      </h2>
      <Table className={styles.table} heads={[words.what, words.when, { unseen: words.handOver }]}>
        {clash.items.map((item, at) => (
          <tr key={at}>
            <th scope="row">
              {item.record ? (
                <Link to={`/records/${item.record}`}>
                  {[item.ref, item.title].filter(Boolean).join(' ') || words.work}
                </Link>
              ) : (
                words.sorts[item.sort]
              )}
            </th>
            <td>{shortSpanText(item.start, item.end)}</td>
            <td className={styles.buttons}>
              {held(item) &&
                WAYS.map((way) => {
                  const open = taken?.item === item && taken.way === way;
                  return (
                    <Button
                      key={way}
                      size="small"
                      aria-expanded={open}
                      aria-label={`${words[way]}: ${what(item)}`}
                      onClick={() => setTaken(open ? null : { item, way })}
                    >
                      {words[way]}
                    </Button>
                  );
                })}
            </td>
          </tr>
        ))}
      </Table>
      {clash.also.length > 0 && (
        <p className={styles.quiet}>
          {words.also} {clash.also.map((kind) => words.kinds[kind]).join(', ')}
        </p>
      )}
      {chosen && taken.way === 'swap' ? (
        <SwapPart held={chosen} name={clash.name ?? ''} what={what(taken.item)} />
      ) : chosen ? (
        <Taking held={chosen} item={taken.item} />
      ) : clash.kind === 'DUE' ? null : (
        <Standing clash={clash} from={from} until={until} />
      )}
    </section>
  );
}

function Taking({ held, item }: { held: Held; item: ClashItem }) {
  const who = useWhoCouldTake(held);
  const { handOver } = useCoverDeeds();
  const tray = useTray();
  const what = item.ref ?? item.title ?? words.work;
  return (
    <>
      <h3>{words.takes(what)}</h3>
      <Candidates
        who={who}
        span={item}
        pending={handOver.isPending ? handOver.variables.to : null}
        onGive={(one) =>
          handOver.mutate(
            { ...held, to: one.person },
            {
              onSuccess: (done) => tray.tell({ text: words.handed(what, one.name), act: done.act }),
              onError: (error) => tray.tell({ text: errorText(error) }),
            },
          )
        }
      />
    </>
  );
}

function Standing({ clash, from, until }: { clash: Clash; from: string; until: string }) {
  const [reason, setReason] = useState('');
  const { letStand, openAgain } = useCoverDeeds();
  const tray = useTray();
  const failed = (error: unknown) => tray.tell({ text: errorText(error) });
  if (clash.letStand) {
    const { by, at, reason: why } = clash.letStand;
    return (
      <p className={styles.stands}>
        {words.stands(by, momentText(at))} {why}{' '}
        <Button
          size="small"
          loading={openAgain.isPending}
          onClick={() => openAgain.mutate(clash.key, { onError: failed })}
        >
          {words.openAgain}
        </Button>
      </p>
    );
  }
  if (clash.never) {
    return <p className={styles.quiet}>{words.neverWhy}</p>;
  }
  return (
    <form
      className={styles.stands}
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) {
          letStand.mutate(
            { clash: clash.key, from, until, reason: reason.trim() },
            {
              onSuccess: () => tray.tell({ text: words.itStands }),
              onError: failed,
            },
          );
        }
      }}
    >
      <label htmlFor="why-it-stands">{words.letItStand}</label>
      <AutoComplete
        id="why-it-stands"
        className={styles.reason}
        value={reason}
        onChange={setReason}
        maxLength={200}
        placeholder={words.reasonHint}
        options={usualReasons.map((value) => ({ value }))}
      />
      <Button htmlType="submit" disabled={!reason.trim()} loading={letStand.isPending}>
        {words.letStand}
      </Button>
    </form>
  );
}
