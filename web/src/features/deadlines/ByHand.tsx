import { Button, Input } from 'antd';
import type { Schemas } from '../../shared/api/client';
import type { Due } from '../../shared/time';
import { Dialog } from '../../shared/ui/Dialog';
import styles from './deadlines.module.css';
import { useKeyDate } from './useKeyDate';
import { words } from './words';

interface Props {
  step: string;
  before: Due | undefined;
  onSet: (date: Schemas['DueChange']) => void;
  onClose: () => void;
}

/** A date of one step that somebody sets. */
export function ByHand({ step, before, onSet, onClose }: Props) {
  const date = useKeyDate(before);
  return (
    <Dialog width={360} title={step} focus="by-hand" onClose={onClose}>
      <div className={styles.byHandForm}>
        <Input
          id="by-hand"
          aria-label={step}
          value={date.text}
          status={date.isWrong ? 'error' : undefined}
          placeholder={words.keyDateHint}
          onChange={(event) => date.setText(event.target.value)}
          onPressEnter={(event) => {
            event.preventDefault();
            if (date.sent) {
              onSet(date.sent);
            }
          }}
        />
        <Button type="primary" disabled={!date.sent} onClick={() => date.sent && onSet(date.sent)}>
          {words.byHand}
        </Button>
      </div>
      {date.isWrong && <small className={styles.warn}>{words.notADate}</small>}
    </Dialog>
  );
}
