import { Button, Dropdown } from 'antd';
import { useRef } from 'react';
import { ProblemError } from '../../shared/api/client';
import { Fault } from '../../shared/ui/Fault';
import { useReadFile, type Wish } from './queries';
import styles from './rules.module.css';
import { words } from './words';

/** The whole set as a file, out and in; what comes in is edited and looked at like anything else. */
export function useSetFile(onSet: (set: Wish) => void) {
  const file = useRef<HTMLInputElement>(null);
  const read = useReadFile();
  const faults = read.error instanceof ProblemError ? read.error.problem.faults : undefined;
  const bringIn = (chosen: File | undefined) => {
    if (chosen) {
      void chosen.text().then((text) => read.mutate(text, { onSuccess: onSet }));
    }
  };
  return {
    menu: (
      <>
        <input
          ref={file}
          type="file"
          accept=".yaml,.yml"
          aria-label={words.fileIn}
          className={styles.hiddenFile}
          tabIndex={-1}
          onChange={(event) => {
            bringIn(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              { key: 'out', label: <a href="/api/v1/rules/file">{words.fileOut}</a> },
              { key: 'in', label: words.fileIn, onClick: () => file.current?.click() },
            ],
          }}
        >
          <Button type="text">{words.file}</Button>
        </Dropdown>
      </>
    ),
    faults: faults ? (
      <div className={styles.fileFaults} role="alert">
        <strong>{words.fileFaults(faults.length)}</strong>
        <ul>
          {faults.map((fault) => (
            <li key={fault.pointer + fault.message}>
              <span>{fault.pointer}</span> {fault.message}
            </li>
          ))}
        </ul>
        <Button size="small" onClick={read.reset}>
          {words.fileClose}
        </Button>
      </div>
    ) : read.error ? (
      <Fault error={read.error} />
    ) : null,
  };
}
