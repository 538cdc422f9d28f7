import { Button, Segmented, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { usePlaces } from '../../shared/api/house';
import { dueText, spanText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Answers, Dialog } from '../../shared/ui/Dialog';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import styles from './deadlines.module.css';
import { LookSum, LookTable } from './LookTable';
import { useChains, useMakingLook, useSetDeeds, useTrial, useWork, type Making } from './queries';
import { useKeyDate } from './useKeyDate';
import { AnswerField, KeyDateField, MethodField, yesOf, type Answer } from './Wishes';
import { words } from './words';

type From = 'work' | 'place' | 'alone';

interface Props {
  /** The work that the key date belongs to, where the dialog was opened from it. */
  work?: number;
  onClose: () => void;
  /** Closes it too. */
  onMade: (set: number) => void;
}

/** Makes sets: from chains and a key date, looked at as one chooses. */
export function MakeDialog({ work, onClose, onMade }: Props) {
  const chains = useChains();
  const [picked, setPicked] = useState<number[]>([]);
  const ids = picked.length > 0 ? picked : chains.data?.length === 1 ? [chains.data[0]!.id] : [];
  return (
    <Dialog
      width={860}
      focus="set-chain"
      title={words.makeTitle}
      reads={[chains]}
      loading={words.loading}
      onClose={onClose}
    >
      {chains.data?.length === 0 && (
        <p>
          {words.noChains} <Link to="/deadlines/chains">{words.writeChain}</Link>
        </p>
      )}
      {chains.data && chains.data.length > 0 && (
        <MakeForm
          chains={chains.data}
          ids={ids}
          onPick={setPicked}
          work={work}
          onClose={onClose}
          onMade={onMade}
        />
      )}
    </Dialog>
  );
}

type FormProps = Props & {
  chains: { id: number; name: string; text: string }[];
  ids: number[];
  onPick: (ids: number[]) => void;
};

/** What somebody wishes of the sets that are to be made. */
function useMaking(chains: FormProps['chains'], ids: number[], work: number | undefined) {
  const first = chains.find((one) => one.id === ids[0]);
  const trial = useTrial({ text: first?.text ?? '', ...(first && { chain: first.id }) });
  const asks = first ? trial.data : undefined;
  const [from, setFrom] = useState<From>(work === undefined ? 'place' : 'work');
  const [record, setRecord] = useState(work);
  const [follows, setFollows] = useState<'BEGINS' | 'DUE' | ''>('BEGINS');
  const [place, setPlace] = useState(0);
  const keyDate = useKeyDate(undefined);
  const [method, setMethod] = useState('');
  const [answers, setAnswers] = useState<Record<string, Answer>>({});
  const [out, setOut] = useState<string[]>([]);
  const isOne = ids.length === 1;
  const isFollowing = from === 'work' && follows !== '';
  const isReady = ids.length > 0 && !keyDate.isWrong && (from !== 'work' || record !== undefined);
  const questions = isOne ? (asks?.questions ?? []) : [];
  const sets: Making[] = isReady
    ? ids.map((chain) => ({
        chain,
        ...(from === 'work' && record !== undefined && { record }),
        ...(isFollowing && { follows: { what: follows } }),
        ...(from === 'place' && place > 0 && { place }),
        ...(!isFollowing && keyDate.sent && { keyDate: keyDate.sent }),
        ...(method && { method }),
        answers: questions
          .filter((question) => answers[question])
          .map((question) => ({ question, yes: yesOf(answers[question]!)! })),
        ...(isOne && out.length > 0 && { steps: out.map((step) => ({ step, leftOut: true })) }),
      }))
    : [];
  const turn = (step: string) =>
    setOut((it) => (it.includes(step) ? it.filter((one) => one !== step) : [...it, step]));
  return {
    asks,
    from,
    setFrom,
    record,
    setRecord,
    follows,
    setFollows,
    place,
    setPlace,
    keyDate,
    method,
    setMethod,
    answers,
    setAnswers,
    turn,
    isOne,
    isFollowing,
    isReady,
    questions,
    sets,
  };
}

function MakeForm({ chains, ids, onPick, work, onClose, onMade }: FormProps) {
  const making = useMaking(chains, ids, work);
  const look = useMakingLook(making.sets);
  const { make } = useSetDeeds();
  const tray = useTray();
  const save = () =>
    make.mutate(making.sets, {
      onSuccess: (done) => {
        tray.tell({ text: words.made(done.sets.length), act: done.act });
        onMade(done.sets[0]!);
      },
    });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <div className={styles.wishes}>
        <label className={styles.wish}>
          <span>{words.chain}</span>
          <Select
            id="set-chain"
            mode="multiple"
            aria-label={words.chain}
            placeholder={words.chooseChain}
            value={ids}
            options={chains.map(({ id, name }) => ({ value: id, label: name }))}
            optionFilterProp="label"
            onChange={onPick}
          />
        </label>
        <BelongsFields making={making} />
        {making.asks?.asksMethod && (
          <MethodField value={making.method} onChange={making.setMethod} />
        )}
        {making.questions.map((question) => (
          <AnswerField
            key={question}
            question={question}
            value={making.answers[question] ?? ''}
            onChange={(answer) => making.setAnswers((it) => ({ ...it, [question]: answer }))}
          />
        ))}
      </div>
      {making.isReady && look.isPending && <Loading what={words.lookLoading} />}
      {look.error && <Fault error={look.error} reads />}
      {making.isReady && look.data && <LookSum looks={look.data} />}
      {making.isReady &&
        look.data?.sets.map((set, index) => (
          <div key={index}>
            {!making.isOne && <h3 className={styles.part}>{set.name}</h3>}
            <LookTable
              look={set}
              isNew
              more={
                making.isOne
                  ? ({ step, standing }) => (
                      <Button size="small" type="text" onClick={() => making.turn(step)}>
                        {standing === 'LEFT_OUT' ? words.putIn : words.leaveOut}
                      </Button>
                    )
                  : undefined
              }
            />
          </div>
        ))}
      <div className={styles.stay}>
        <Answers
          pending={make.isPending}
          error={make.error}
          onClose={onClose}
          save={words.makes(look.data?.counts['NOW_DATED'] ?? 0)}
        />
      </div>
    </form>
  );
}

/** What the key date belongs to, and which it is. */
function BelongsFields({ making }: { making: ReturnType<typeof useMaking> }) {
  const { from, asks } = making;
  return (
    <>
      <div className={styles.wish}>
        <span>{words.belongs}</span>
        <Segmented
          tabIndex={-1}
          aria-label={words.belongs}
          value={from}
          options={[
            { value: 'work', label: words.fromWork },
            { value: 'place', label: words.fromPlace },
            { value: 'alone', label: words.alone },
          ]}
          onChange={(value) => making.setFrom(value as From)}
        />
      </div>
      {from === 'work' && <WorkField value={making.record} onChange={making.setRecord} />}
      {from === 'place' && <PlaceField value={making.place} onChange={making.setPlace} />}
      {from === 'work' && (
        <label className={styles.wish}>
          <span>{asks?.keyDate ?? words.keyDate}</span>
          <Choice
            aria-label={words.keyDate}
            value={making.follows}
            options={[
              { value: 'BEGINS', label: words.followsBegin },
              { value: 'DUE', label: words.followsDue },
              { value: '', label: words.typed },
            ]}
            onChange={(value) => making.setFollows(value as typeof making.follows)}
          />
        </label>
      )}
      {!making.isFollowing && <KeyDateField name={asks?.keyDate ?? ''} keyDate={making.keyDate} />}
    </>
  );
}

function PlaceField({ value, onChange }: { value: number; onChange: (place: number) => void }) {
  const places = usePlaces();
  return (
    <label className={styles.wish}>
      <span>{words.place}</span>
      <Choice
        aria-label={words.place}
        value={value}
        options={[
          { value: 0, label: '–' },
          ...(places.data ?? []).map((one) => ({ value: one.id, label: one.name })),
        ]}
        onChange={onChange}
      />
    </label>
  );
}

interface WorkProps {
  value: number | undefined;
  onChange: (record: number) => void;
}

/** The work, found by its ref or its words. */
function WorkField({ value, onChange }: WorkProps) {
  const [find, setFind] = useState(value === undefined ? '' : String(value));
  const found = useWork(find);
  return (
    <label className={styles.wish}>
      <span>{words.work}</span>
      <Select
        showSearch={{ filterOption: false, onSearch: setFind }}
        aria-label={words.findWork}
        placeholder={words.findWork}
        value={value}
        options={(found.data?.items ?? []).map((one) => ({
          value: one.id,
          label: [one.ref, one.title, one.due ? dueText(one.due) : spanText(one.visits?.[0] ?? {})]
            .filter(Boolean)
            .join(' · '),
        }))}
        onChange={onChange}
      />
    </label>
  );
}
