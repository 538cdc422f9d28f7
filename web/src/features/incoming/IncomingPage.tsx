import { Button, Input, Progress, Segmented, Upload } from 'antd';
import { useMemo } from 'react';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Columns } from './Columns';
import styles from './incoming.module.css';
import { Mends } from './Mends';
import { count, mends as mendsOf, type What } from './model';
import { useNames } from './queries';
import { useIncoming } from './useIncoming';
import { words } from './words';

const TYPES = '.csv,.tsv,.txt,.ics,text/csv,text/calendar';

/** A file in: what its columns are, what it would do, every fault mended in place, then taken. */
export function IncomingPage({ mayBringCrew }: { mayBringCrew: boolean }) {
  const incoming = useIncoming();
  const { chosen } = incoming;
  return (
    <section className={styles.page} aria-label={words.heading}>
      <div className={styles.bar}>
        <h1 className={styles.heading}>{words.heading}</h1>
        {mayBringCrew && (
          <Segmented
            aria-label={words.holds}
            value={incoming.what}
            options={words.whats}
            onChange={(value) => incoming.turn(value as What)}
          />
        )}
        <span className={styles.grow} />
        {chosen && <Button onClick={incoming.leave}>{words.other}</Button>}
      </div>
      {incoming.fault && <Fault error={incoming.fault} />}
      {incoming.reading && <Loading what={words.reading} />}
      {!chosen && !incoming.reading && (
        <Upload.Dragger
          accept={TYPES}
          multiple={false}
          showUploadList={false}
          className={styles.drop}
          beforeUpload={(file) => {
            incoming.choose(file);
            return false;
          }}
        >
          <p className={styles.dropHere}>{words.drop}</p>
          <p className={styles.quiet}>{words.dropWhy}</p>
        </Upload.Dragger>
      )}
      {chosen && !incoming.reading && <File incoming={incoming} />}
    </section>
  );
}

function File({ incoming }: { incoming: ReturnType<typeof useIncoming> }) {
  const { read, file } = incoming.chosen!;
  const names = useNames();
  const mends = useMemo(
    () => mendsOf(incoming.rows, incoming.verdicts),
    [incoming.rows, incoming.verdicts],
  );
  return (
    <>
      <div className={styles.settings}>
        <span>
          <strong>{file.name}</strong>{' '}
          <span className={styles.quiet}>
            {incoming.rows.length.toLocaleString('en-GB')} rows, {read.written}
          </span>
        </span>
        <label>
          {words.from}
          <Input
            className={styles.source}
            title={words.fromWhy}
            value={incoming.source}
            maxLength={60}
            onChange={(event) => incoming.setSource(event.target.value)}
          />
        </label>
        {incoming.what === 'RECORDS' && (
          <label>
            {words.usualKind}
            <Choice
              className={styles.kind}
              aria-label={words.usualKind}
              value={incoming.kind}
              options={words.kinds}
              onChange={incoming.setKind}
            />
          </label>
        )}
        {incoming.wantsStrokes && (
          <label>
            {words.strokes}
            <Choice
              className={styles.kind}
              aria-label={words.strokes}
              placeholder="…"
              value={incoming.strokes}
              options={words.strokesChoices}
              onChange={incoming.setStrokes}
            />
          </label>
        )}
      </div>
      <Columns
        columns={read.columns}
        known={read.fields}
        fields={incoming.fields}
        rows={incoming.rows}
        onField={incoming.setField}
      />
      {!incoming.fields.includes('id') && <p className={styles.warning}>{words.noId}</p>}
      <Outcome incoming={incoming} />
      {mends.length > 0 && (
        <section className={styles.block} aria-label={words.mendHeading}>
          <h2>
            {words.mendHeading} <span className={styles.quiet}>{words.mendWhy}</span>
          </h2>
          <Mends
            mends={mends}
            columns={read.columns}
            names={(column) => names(incoming.fields[column] ?? '')}
            onMend={incoming.mend}
          />
        </section>
      )}
      {read.notRead.length > 0 && (
        <section className={styles.block} aria-label={words.notReadHeading}>
          <h2>
            {words.notReadHeading} <span className={styles.quiet}>{words.notReadWhy}</span>
          </h2>
          <ul className={styles.notRead}>
            {read.notRead.map((one, i) => (
              <li key={i}>
                <span className={styles.what}>{one.what}</span>
                <span className={styles.quiet}>{one.why}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** The numbers of the look, and the one thing to do next. */
function Outcome({ incoming }: { incoming: ReturnType<typeof useIncoming> }) {
  const { verdicts, progress } = incoming;
  const numbers: [number, string, boolean][] = [
    [count(verdicts, 'NEW'), words.fresh, false],
    [count(verdicts, 'CHANGED'), words.changed, false],
    [count(verdicts, 'SAME'), words.same, false],
    [count(verdicts, 'FAULTY'), words.faulty, true],
    [incoming.chosen!.read.notRead.length, words.notRead, true],
  ];
  return (
    <section className={styles.outcome} aria-label={words.outcome} aria-busy={incoming.looking}>
      {progress ? (
        <>
          <Progress
            className={styles.progress}
            percent={Math.round((100 * progress.done) / Math.max(1, progress.of))}
            showInfo={false}
          />
          <span role="status">{words.taking(progress.done, progress.of)}</span>
          <span className={styles.grow} />
          <Button onClick={incoming.stop}>{words.stop}</Button>
        </>
      ) : (
        <>
          {numbers.map(([n, what, bad]) => (
            <span key={what} className={bad && n > 0 ? styles.bad : styles.number}>
              <strong>{n.toLocaleString('en-GB')}</strong> {what}
            </span>
          ))}
          {incoming.looking && <span className={styles.quiet}>{words.looking}…</span>}
          <span className={styles.grow} />
          <Button
            type="primary"
            disabled={incoming.looking || incoming.toTake === 0}
            onClick={incoming.takeAll}
          >
            {incoming.toTake === 0 ? words.nothing : words.take(incoming.toTake)}
          </Button>
        </>
      )}
    </section>
  );
}
