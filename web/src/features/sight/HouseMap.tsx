import { Button, Popover } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Schemas } from '../../shared/api/client';
import { useCalendars, usePeople } from '../../shared/api/house';
import { addDays, daysText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { forKey, ForWord, useNames, useRuleSet, type For, type WishedFor } from '../rules';
import { useHouseMap } from './queries';
import styles from './sight.module.css';
import { words } from './words';

type Cell = Schemas['ReachCell'];

const MOST_NAMES = 12;

/** Details down, readers by what they are to the work across: whom each detail reaches. */
export function HouseMap() {
  const map = useHouseMap();
  if (map.error) {
    return <Fault error={map.error} reads />;
  }
  if (!map.data) {
    return <Loading what={words.mapLoading} />;
  }
  const { columns, details, records, more, from, until } = map.data;
  return (
    <>
      <p className={styles.quiet}>
        {words.mapWhy(records, daysText(from, addDays(until, -1)))} {more && words.mapMore}
      </p>
      <div className={styles.scroll} role="region" aria-label={words.map} tabIndex={0}>
        <table className={`${styles.table} ${styles.map}`}>
          <thead>
            <tr>
              <th scope="col">{words.detail}</th>
              <th scope="col">{words.forWhom}</th>
              {columns.map((column) => (
                <th scope="col" key={column.key}>
                  {words.column(column.name)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {details.map((row) => (
              <tr key={row.detail}>
                <th scope="row">
                  <Link to={`/who-sees-what?by=detail&of=${encodeURIComponent(row.detail)}`}>
                    {row.label}
                  </Link>
                </th>
                <td>
                  <Wished detail={row.detail} label={row.label} />
                </td>
                {row.cells.map((cell, at) => (
                  <td key={columns[at]!.key} className={styles.cell}>
                    <Reached cell={cell} name={`${row.label}, ${columns[at]!.name}`} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** Whom it is for; another choice leads to the look at what that would change. */
function Wished({ detail, label }: { detail: string; label: string }) {
  const world = useNames();
  const navigate = useNavigate();
  const now = useRuleSet().data?.details.find((one) => one.key === detail)?.for;
  const [wish, setWish] = useState<For | null>(null);
  if (!now) {
    return null;
  }
  const set = wish ?? now;
  const wished: WishedFor = { detail, for: set };
  return (
    <span className={styles.wished}>
      <ForWord label={label} set={set} world={world} onChange={setWish} />
      {forKey(set) !== forKey(now) && (
        <Button
          size="small"
          type="primary"
          onClick={() => void navigate('/rules?tab=details', { state: { wished } })}
        >
          {words.preview}
        </Button>
      )}
    </span>
  );
}

/** How many people and calendars; by name where one asks. */
function Reached({ cell, name }: { cell: Cell; name: string }) {
  const calendars = useCalendars().data ?? [];
  const people = usePeople().data ?? [];
  if (cell.people.length === 0 && !cell.anybody) {
    return cell.allowed ? (
      <span className={styles.quiet}>{words.reachesNobody}</span>
    ) : (
      <i className={`${styles.back} ${styles.none}`} role="img" aria-label={words.notFor} />
    );
  }
  const text = `${words.peopleCount(cell.people.length, cell.anybody)}, ${words.calendarCount(cell.calendars.length)}`;
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      arrow={false}
      content={
        <div className={styles.reached}>
          {!cell.allowed && <p className={styles.amber}>{words.otherwise}</p>}
          {cell.anybody && <p className={styles.amber}>{words.anybodyWhy}</p>}
          <Named title={words.people}>
            {cell.people.slice(0, MOST_NAMES).map((id) => (
              <Link key={id} to={`/who-sees-what?by=person&of=${id}`}>
                {people.find((one) => one.id === id)?.name ?? '…'}
              </Link>
            ))}
            {cell.people.length > MOST_NAMES && (
              <span>{words.andMore(cell.people.length - MOST_NAMES)}</span>
            )}
          </Named>
          <Named title={words.calendars}>
            {cell.calendars.slice(0, MOST_NAMES).map((id) => (
              <span key={id}>{calendars.find((one) => one.id === id)?.name ?? '…'}</span>
            ))}
            {cell.calendars.length > MOST_NAMES && (
              <span>{words.andMore(cell.calendars.length - MOST_NAMES)}</span>
            )}
          </Named>
          {cell.example !== undefined && (
            <Link to={`/who-sees-what?record=${cell.example}`}>{words.forExample}</Link>
          )}
        </div>
      }
    >
      <button
        type="button"
        className={`${styles.reach} ${cell.allowed && !cell.anybody ? '' : styles.amber}`}
        aria-label={`${name}: ${text}`}
      >
        <span>{words.peopleCount(cell.people.length, cell.anybody)}</span>
        <span>{words.calendarCount(cell.calendars.length)}</span>
      </button>
    </Popover>
  );
}

function Named({
  title,
  children,
}: {
  title: string;
  children: React.ReactNode[] | React.ReactNode;
}) {
  return (
    <section>
      <strong>{title}</strong>
      {children}
    </section>
  );
}
