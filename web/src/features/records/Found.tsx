import { Button } from 'antd';
import { Fragment } from 'react';
import { useReading } from './queries';
import styles from './records.module.css';
import { words } from './words';

/** What was understood of the line: pieces that can be taken out, and what it may mean beside. */
export function Found({ line, onLine }: { line: string; onLine: (line: string) => void }) {
  const reading = useReading(line);
  const pieces = reading.data?.pieces ?? [];
  const instead = (from: number, until: number, text: string) =>
    onLine((line.slice(0, from) + text + line.slice(until)).replace(/\s+/g, ' ').trim());
  return (
    <div className={styles.found} aria-label={words.found} role="group">
      {pieces.map((piece) => (
        <span
          key={piece.from}
          className={[
            styles.piece,
            ['WORDS', 'NEAR'].includes(piece.sort) ? styles.asWords : '',
          ].join(' ')}
        >
          {words.pieces[piece.sort] && (
            <span className={styles.sort}>{words.pieces[piece.sort]}</span>
          )}
          {piece.said}
          {piece.meant && <span className={styles.sort}>{words.orNear(piece.meant)}</span>}
          {piece.meant && (
            <button
              type="button"
              className={styles.typed}
              onClick={() =>
                instead(piece.from, piece.until, `"${line.slice(piece.from, piece.until)}"`)
              }
            >
              {words.notAlso(piece.meant)}
            </button>
          )}
          <button
            type="button"
            className={styles.takeOut}
            aria-label={words.takeOut(piece.said)}
            onClick={() => instead(piece.from, piece.until, '')}
          >
            ×
          </button>
        </span>
      ))}
      {(reading.data?.offers ?? []).map((offer) => (
        <span key={offer.from} className={styles.offer}>
          {words.mayMean(line.slice(offer.from, offer.until))}
          {offer.choices.map((choice, index) => (
            <Fragment key={choice.text}>
              {index > 0 && words.or}
              <Button
                type="link"
                size="small"
                onClick={() => instead(offer.from, offer.until, choice.text)}
              >
                {choice.name}
              </Button>
            </Fragment>
          ))}
        </span>
      ))}
      <Button type="link" size="small" onClick={() => onLine('')}>
        {words.showAll}
      </Button>
    </div>
  );
}
