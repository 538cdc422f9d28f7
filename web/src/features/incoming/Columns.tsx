import { Choice } from '../../shared/ui/Choice';
import styles from './incoming.module.css';
import type { FileRow } from './model';
import { words } from './words';

const SHOWN = 4;

interface Props {
  columns: { name: string }[];
  known: { key: string; label: string }[];
  fields: string[];
  rows: FileRow[];
  onField: (at: number, field: string) => void;
}

/** The file's first rows, and over each column what it is. */
export function Columns({ columns, known, fields, rows, onField }: Props) {
  const options = [
    { value: '', label: words.leftOut },
    ...known.map((field) => ({ value: field.key, label: field.label })),
  ];
  return (
    <section aria-label={words.columns} className={styles.columns}>
      <table>
        <thead>
          <tr>
            {columns.map((column, at) => (
              <th key={at} scope="col">
                <Choice
                  aria-label={words.column(column.name || String(at + 1))}
                  className={fields[at] ? styles.is : styles.isOut}
                  value={fields[at] ?? ''}
                  options={options}
                  onChange={(field: string) => onField(at, field)}
                />
                <span className={styles.named}>{column.name || ' '}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, SHOWN).map((row, i) => (
            <tr key={i}>
              {columns.map((_, at) => (
                <td key={at} className={fields[at] ? undefined : styles.out}>
                  {row.cells[at]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > SHOWN && <p className={styles.more}>{words.moreRows(rows.length - SHOWN)}</p>}
    </section>
  );
}
