import {
  acceptCompletion,
  autocompletion,
  completionKeymap,
  type Completion,
  type CompletionContext,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { useEffect, useEffectEvent, useRef } from 'react';
import styles from './deadlines.module.css';
import type { ChainFault } from './queries';
import { words } from './words';

/** What a chain may name, by where it stands. */
export interface Names {
  dates: string[];
  holders: string[];
  roles: string[];
  methods: string[];
  questions: string[];
}

interface Props {
  text: string;
  faults: ChainFault[];
  names: Names;
  onChange: (text: string) => void;
}

/** Tab takes what is offered; Enter always ends the line, whatever is offered meanwhile. */
const TAKING = [
  ...completionKeymap.filter((one) => one.key !== 'Enter'),
  { key: 'Tab', run: acceptCompletion },
];

/** Behind which words what is named. */
const BEHIND: [RegExp, (names: Names) => string[]][] = [
  [/\bas\s+[^,:;"]*$/i, (names) => names.roles],
  [
    /;\s*for\s+[^,:;"]*$/i,
    (names) => [...names.roles.map((one) => `the ${one}`), ...names.holders],
  ],
  [/,\s*by\s+[^,:;"]*$/i, (names) => [words.chosenMethod, ...names.methods]],
  [/\b(?:only if|unless)\s+[^,:;"]*$/i, (names) => names.questions],
  [/^\s*(?:\d+\s+[\p{L} ]+?\s(?:before|after)|on)\s+[^,:;"]*$/iu, (names) => names.dates],
];

/** What the language itself would have there. */
function phrases(before: string): string[] {
  if (/^\s*\w*$/.test(before)) {
    return words.lineStarts;
  }
  if (/^\s*\d+\s+\w*$/.test(before)) {
    return words.unitPhrases;
  }
  if (/;\s*[\w ]*$/.test(before)) {
    return words.morePhrases;
  }
  if (/,\s*[\w ]*$/.test(before) && !before.includes(':')) {
    return words.howPhrases;
  }
  return [];
}

function completions(context: CompletionContext, names: Names) {
  const line = context.state.doc.lineAt(context.pos);
  const before = line.text.slice(0, context.pos - line.from);
  const found = BEHIND.find(([where]) => where.test(before));
  const typed = found
    ? /(?:\b(?:as|for|by|if|unless|before|after|on)\s+)([^,:;"]*)$/i.exec(before)?.[1]
    : /[\w ]*$/.exec(before)?.[0].trimStart();
  if (typed === undefined || (typed === '' && !context.explicit && !found)) {
    return null;
  }
  const options: Completion[] = (found ? found[1](names) : phrases(before)).map((label) => ({
    label,
  }));
  return options.length === 0 ? null : { from: context.pos - typed.length, options };
}

/** Where a column, which counts code points, lies. */
function place(state: EditorState, line: number, column: number): number {
  const at = state.doc.line(Math.min(line, state.doc.lines));
  const points = [...at.text].slice(0, column - 1).join('');
  return Math.min(at.from + points.length, at.to);
}

function diagnostics(state: EditorState, faults: ChainFault[]): Diagnostic[] {
  return faults.map((fault) => {
    const from = place(state, fault.line, fault.column);
    const word = /^\S+/.exec(state.doc.sliceString(from, state.doc.lineAt(from).to))?.[0] ?? '';
    const { edit } = fault;
    return {
      from,
      to: from + word.length,
      severity: 'error',
      message: fault.message,
      ...(edit && {
        actions: [{ name: words.mend, apply: (view: EditorView) => mend(view, fault) }],
      }),
    };
  });
}

/** Does what mends a fault. */
export function mend(view: EditorView, { line, edit }: ChainFault) {
  if (edit) {
    const from = place(view.state, line, edit.column);
    const to = place(view.state, line, edit.column + edit.length);
    view.dispatch({
      changes: { from, to, insert: edit.text },
      selection: { anchor: from + edit.text.length },
    });
    view.focus();
  }
}

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '13px', backgroundColor: 'var(--cell)', color: 'var(--ink)' },
  '&.cm-focused': { outline: '2px solid var(--pine)', outlineOffset: '-2px' },
  '.cm-scroller': { fontFamily: 'ui-monospace, monospace', lineHeight: '1.6' },
  '.cm-gutters': {
    backgroundColor: 'var(--sheet)',
    color: 'var(--ink-3)',
    borderRight: '1px solid var(--line)',
  },
  '.cm-content': { caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'var(--pine-soft) !important',
  },
  '.cm-tooltip': {
    border: '1px solid var(--line)',
    borderRadius: '6px',
    backgroundColor: 'var(--cell)',
    color: 'var(--ink)',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--pine-soft)',
    color: 'var(--ink)',
  },
  '.cm-diagnosticAction': {
    border: '1px solid var(--line)',
    borderRadius: '4px',
    backgroundColor: 'var(--group)',
    color: 'var(--ink)',
  },
});

/** The text of a chain with its line numbers, its faults at their place, and what it may name. */
export function ChainText({
  text,
  faults,
  names,
  onChange,
  onView,
}: Props & { onView: (view: EditorView) => void }) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const changed = useEffectEvent(onChange);
  const begun = useEffectEvent(() => text);
  const known = useEffectEvent(() => names);
  const tell = useEffectEvent(onView);
  useEffect(() => {
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: begun(),
        extensions: [
          lineNumbers(),
          EditorView.lineWrapping,
          lintGutter(),
          history(),
          autocompletion({
            override: [(context) => completions(context, known())],
            icons: false,
            defaultKeymap: false,
          }),
          keymap.of([...TAKING, ...historyKeymap, ...defaultKeymap]),
          EditorView.contentAttributes.of({ 'aria-label': words.chainText, id: 'chain-text' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) {
              changed(update.state.doc.toString());
            }
          }),
          look,
        ],
      }),
    });
    view.current = made;
    tell(made);
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const now = view.current;
    // What the form wrote; what was typed here stands here already.
    if (now && now.state.doc.toString() !== text) {
      now.dispatch({ changes: { from: 0, to: now.state.doc.length, insert: text } });
    }
  }, [text]);
  useEffect(() => {
    const now = view.current;
    now?.dispatch(setDiagnostics(now.state, diagnostics(now.state, faults)));
  }, [faults]);
  return <div className={styles.text} ref={host} />;
}
