import { Modal } from 'antd';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { Outlook } from './Outlook';
import { LookContext, type Wish } from './useLookedAt';
import { words } from './words';

const DO = 'do-what-was-looked-at';

/** The one page that a change which shows more to somebody goes by. */
export function LookDialog({ children }: { children: ReactNode }) {
  const [wish, setWish] = useState<Wish | null>(null);
  const [doing, setDoing] = useState(false);
  const ask = useCallback((next: Wish) => setWish(next), []);
  const context = useMemo(() => ({ ask }), [ask]);
  return (
    <LookContext.Provider value={context}>
      {children}
      <Modal
        open={wish !== null}
        width={640}
        centered
        styles={{ body: { maxHeight: 'calc(100vh - 190px)', overflowY: 'auto' } }}
        title={words.heading}
        okText={words.doIt}
        cancelText={words.leave}
        okButtonProps={{ id: DO, loading: doing }}
        afterOpenChange={(isOpen) => isOpen && document.getElementById(DO)?.focus()}
        onOk={() => {
          setDoing(true);
          void wish?.go().finally(() => {
            setDoing(false);
            setWish(null);
          });
        }}
        onCancel={() => {
          wish?.leave();
          setWish(null);
        }}
      >
        {wish && <Outlook outlook={wish.outlook} />}
      </Modal>
    </LookContext.Provider>
  );
}
