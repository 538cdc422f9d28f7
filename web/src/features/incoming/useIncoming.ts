import { useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { ProblemError } from '../../shared/api/client';
import { useTray } from '../../shared/ui/tray';
import {
  count,
  hasStrokes,
  sourceOf,
  written,
  type FileRead,
  type FileRow,
  type Mend,
  type What,
} from './model';
import { useLook, useReadFile, useTake, type Sent } from './queries';
import { words } from './words';

/** So many rows are one act; the others wait no longer than for that. */
const AT_ONCE = 500;
/** Typing goes on; looking waits for it to rest. */
const REST_MS = 350;

interface Chosen {
  file: File;
  read: FileRead;
}

/** A file on its way in: chosen, read, mended, looked at again after each change, taken. */
export function useIncoming() {
  const [search, setSearch] = useSearchParams();
  const what = (search.get('what') ?? 'RECORDS') as What;
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [source, setSource] = useState('');
  const [kind, setKind] = useState('TICKET');
  const [strokes, setStrokes] = useState<string | null>(null);
  const [fields, setFields] = useState<string[]>([]);
  const [rows, setRows] = useState<FileRow[]>([]);
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const stopped = useRef(false);
  const read = useReadFile();
  const take = useTake();
  const tray = useTray();

  const wish = useWish(chosen !== null, { what, source, kind, strokes, fields, rows });
  const rested = useRested(wish);
  const look = useLook(progress ? null : rested);
  const verdicts = look.data?.rows ?? [];

  const choose = (file: File, as: What) =>
    read.mutate(
      { file, what: as },
      {
        onSuccess: (answer) => {
          setChosen({ file, read: answer });
          setSource(sourceOf(file.name));
          setKind(answer.written === 'iCalendar' ? 'JOB' : 'TICKET');
          setStrokes(null);
          setFields(answer.columns.map((column) => column.field));
          setRows(answer.rows);
        },
      },
    );

  const turn = (next: What) => {
    setSearch({ what: next }, { replace: true });
    read.reset();
    if (chosen) {
      choose(chosen.file, next);
    }
  };

  const takeAll = async () => {
    const wanted = rows.filter((_, at) => ['NEW', 'CHANGED'].includes(verdicts[at]?.verdict ?? ''));
    const acts: number[] = [];
    let calendars = 0;
    let done = 0;
    stopped.current = false;
    setProgress({ done: 0, of: wanted.length });
    try {
      while (done < wanted.length && !stopped.current) {
        const some = wanted.slice(done, done + AT_ONCE);
        const answer = await take.mutateAsync({ ...wish!, rows: some });
        done += some.length;
        calendars = Math.max(calendars, answer.calendars);
        if (answer.act != null && what === 'RECORDS') {
          acts.push(answer.act);
        }
        setProgress({ done, of: wanted.length });
      }
      tray.tell({ text: words.taken(done, calendars), acts });
    } catch (error) {
      tray.tell({ text: error instanceof ProblemError ? error.message : words.failed, acts });
    } finally {
      // The look, which rests meanwhile, is then made anew.
      setProgress(null);
    }
  };

  return {
    what,
    turn,
    choose: (file: File) => choose(file, what),
    leave: () => {
      setChosen(null);
      read.reset();
    },
    chosen,
    reading: read.isPending,
    fault: read.error ?? look.error,
    source,
    setSource,
    kind,
    setKind,
    strokes,
    setStrokes,
    wantsStrokes: hasStrokes(rows),
    fields,
    setField: (at: number, field: string) =>
      setFields((now) => now.map((one, i) => (i === at ? field : one === field ? '' : one))),
    rows,
    mend: (mend: Mend, text: string) => setRows((now) => written(now, mend, text)),
    verdicts,
    looking: look.isFetching || rested !== wish,
    toTake: count(verdicts, 'NEW') + count(verdicts, 'CHANGED'),
    takeAll: () => void takeAll(),
    stop: () => {
      stopped.current = true;
    },
    progress,
  };
}

/** What is asked of the server, once there is a file and it is known where it comes from. */
function useWish(
  isChosen: boolean,
  { what, source, kind, strokes, fields, rows }: Omit<Sent, 'strokes'> & { strokes: string | null },
) {
  return useMemo<Sent | null>(
    () =>
      isChosen && source.trim() !== ''
        ? { what, source: source.trim(), kind, ...(strokes && { strokes }), fields, rows }
        : null,
    [isChosen, what, source, kind, strokes, fields, rows],
  );
}

/** A value once it has rested a moment. */
function useRested<T>(value: T): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setRested(value), REST_MS);
    return () => window.clearTimeout(timer);
  }, [value]);
  return rested;
}
