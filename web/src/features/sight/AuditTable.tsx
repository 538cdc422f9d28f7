import { Select } from 'antd';
import type { Schemas } from '../../shared/api/client';
import { useDetails, usePeople } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import { useAudit } from './queries';
import styles from './sight.module.css';
import { words } from './words';

type Row = Schemas['AuditRow'];

interface Props {
  by: 'detail' | 'person';
  value: string | null;
  onChoose: (value: string) => void;
}

/** Whom a detail can reach and by which rule, or what a person can see and through what. */
export function AuditTable({ by, value }: Omit<Props, 'onChoose'>) {
  const audit = useAudit(by, value);
  return (
    <>
      {value === null && <p className={styles.quiet}>{words.auditWhy[by]}</p>}
      {audit.isLoading && value !== null && <Loading what={words.auditLoading} />}
      {audit.error && <Fault error={audit.error} reads />}
      {audit.data && value !== null && (
        <>
          <p className={styles.quiet}>
            {words.auditCounts}{' '}
            <a href={`/api/v1/audit.csv?${by}=${encodeURIComponent(value)}`}>{words.auditCsv}</a>
          </p>
          {audit.data.length === 0 ? (
            <p className={styles.quiet}>{words.auditNone}</p>
          ) : (
            <div className={styles.scroll} role="region" aria-label={words.audit} tabIndex={0}>
              <Table
                className={styles.audit}
                heads={[
                  by === 'person' && words.detail,
                  words.auditThrough,
                  words.auditReaders,
                  words.auditRule,
                  words.auditCount,
                ]}
              >
                {audit.data.map((row, i) => (
                  <tr key={i}>
                    {by === 'person' && <td>{row.detail}</td>}
                    <td>{through(row)}</td>
                    <td>{row.readers}</td>
                    <td>{row.rule ?? ''}</td>
                    <td>{count(row)}</td>
                  </tr>
                ))}
              </Table>
            </div>
          )}
        </>
      )}
    </>
  );

  function through(row: Row): string {
    return row.way === 'SCREENS'
      ? words.screens
      : [row.name, words.auditWays[row.way]].filter(Boolean).join(' · ');
  }
}

function count(row: Row): string {
  const n = row.count.toLocaleString('en-GB');
  return row.way === 'SCREENS' ? words.auditRecords(n) : words.auditEntries(n);
}

/** Which detail, or which person. */
export function AuditChoice({ by, value, onChoose }: Props) {
  const details = useDetails();
  const people = usePeople();
  const options =
    by === 'detail'
      ? (details.data ?? []).map((d) => ({ value: d.key, label: d.label }))
      : (people.data ?? []).map((p) => ({ value: String(p.id), label: p.name }));
  return (
    <Select
      className={styles.records}
      showSearch
      optionFilterProp="label"
      aria-label={words.auditOf[by]}
      placeholder={words.auditOf[by]}
      value={value}
      options={options}
      onChange={(chosen: string | null) => chosen !== null && onChoose(chosen)}
    />
  );
}
