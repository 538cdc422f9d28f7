import { Modal } from 'antd';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { Fault } from '../ui/Fault';
import type { Schemas } from '../api/client';
import { Ends, makeAnew } from './Ends';
import styles from './look.module.css';
import { Preview } from './Preview';
import { LookContext, type Wish } from './useLookedAt';
import { words } from './words';

const DO = 'do-what-was-looked-at';

/** The one page that a change which shows more to somebody goes by. */
export function LookDialog({ children }: { children: ReactNode }) {
  const [wish, setWish] = useState<Wish | null>(null);
  const [doing, setDoing] = useState(false);
  const [anew, setAnew] = useState<ReadonlySet<Schemas['EndsWith']>>(new Set());
  const [made, setMade] = useState<{ label: string; address: string }[]>([]);
  const [fault, setFault] = useState<Error | null>(null);
  const ask = useCallback((next: Wish) => {
    setAnew(new Set());
    setWish(next);
  }, []);
  const doIt = async () => {
    setDoing(true);
    try {
      if (await wish?.go()) {
        const all = [];
        for (const one of anew) {
          all.push(...(await makeAnew(one)));
        }
        setMade(all);
      }
    } catch (error) {
      setFault(error as Error);
    } finally {
      setDoing(false);
      setWish(null);
    }
  };
  const context = useMemo(() => ({ ask }), [ask]);
  return (
    <LookContext.Provider value={context}>
      {children}
      <Modal
        open={wish !== null}
        // Above the dialog that asked for what is looked at.
        zIndex={1100}
        width={640}
        centered
        styles={{ body: { maxHeight: 'calc(100vh - 190px)', overflowY: 'auto' } }}
        title={words.heading}
        okText={words.doIt}
        cancelText={words.leave}
        okButtonProps={{ id: DO, loading: doing }}
        afterOpenChange={(isOpen) => isOpen && document.getElementById(DO)?.focus()}
        onOk={() => void doIt()}
        onCancel={() => {
          wish?.leave();
          setWish(null);
        }}
      >
        {wish && <Preview preview={wish.preview} />}
        {wish && wish.preview.ends.length > 0 && (
          <Ends all={wish.preview.ends} anew={anew} onAnew={setAnew} />
        )}
      </Modal>
      <Modal
        open={made.length > 0 || fault !== null}
        centered
        title={words.madeHeading}
        okText={words.close}
        cancelButtonProps={{ hidden: true }}
        onOk={() => {
          setMade([]);
          setFault(null);
        }}
        onCancel={() => {
          setMade([]);
          setFault(null);
        }}
      >
        {fault && <Fault error={fault} />}
        {made.length > 0 && <p>{words.once}</p>}
        <ul className={styles.made}>
          {made.map((one) => (
            <li key={one.address}>
              <strong>{one.label}</strong>
              <code>{one.address}</code>
            </li>
          ))}
        </ul>
      </Modal>
    </LookContext.Provider>
  );
}
