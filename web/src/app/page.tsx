import { useEffect, useState, type ComponentType } from 'react';
import { Fault } from '../shared/ui/Fault';
import { Loading } from '../shared/ui/Loading';
import { frameWords as words } from './words';

/**
 * A page that is loaded when it is first opened. Once it is there it is drawn at once; if it can't
 * be had, the window has to be loaded again, which also gets what a newer version has instead.
 */
export function page<Props extends object>(load: () => Promise<ComponentType<Props>>) {
  let loaded: ComponentType<Props> | undefined;
  return function Page(props: Props) {
    const [There, setThere] = useState(() => loaded);
    const [fault, setFault] = useState<unknown>(null);
    useEffect(() => {
      let gone = false;
      if (!loaded) {
        load().then(
          (part) => {
            loaded = part;
            if (!gone) {
              setThere(() => loaded);
            }
          },
          (failed: unknown) => !gone && setFault(failed),
        );
      }
      return () => {
        gone = true;
      };
    }, []);
    if (fault) {
      return <Fault error={fault} again={() => window.location.reload()} />;
    }
    return There ? <There {...props} /> : <Loading what={words.loading} />;
  };
}
