import { Button } from 'antd';
import { Dialog } from '../../shared/ui/Dialog';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { LookSum, LookTable } from './LookTable';
import { useOffLook, useSetDeeds, type DeadlineSet } from './queries';
import styles from './deadlines.module.css';
import { words } from './words';

interface Props {
  set: DeadlineSet;
  onClose: () => void;
  onDone: () => void;
}

/** Takes a set off: first the counts. */
export function OffDialog({ set, onClose, onDone }: Props) {
  const look = useOffLook(set);
  const { takeOff } = useSetDeeds();
  const tray = useTray();
  const go = () =>
    takeOff.mutate(set, {
      onSuccess: (done) => {
        tray.tell({ text: words.takenOff(words.label(set)), act: done.act });
        onDone();
      },
    });
  return (
    <Dialog
      width={720}
      title={`${words.offTitle}: ${words.label(set)}`}
      reads={[look]}
      loading={words.lookLoading}
      onClose={onClose}
    >
      <p>{words.offWhy}</p>
      {look.data && <LookSum looks={look.data} />}
      {look.data?.sets[0] && <LookTable look={look.data.sets[0]} />}
      {takeOff.error && <Fault error={takeOff.error} />}
      <div className={styles.answers}>
        <Button danger type="primary" loading={takeOff.isPending} onClick={go}>
          {words.doTakeOff}
        </Button>
        <Button onClick={onClose}>{words.close}</Button>
      </div>
    </Dialog>
  );
}
