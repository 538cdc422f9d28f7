import { DeleteOutlined } from '@ant-design/icons';
import { Button, Checkbox, Input, Popover } from 'antd';
import { useState } from 'react';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { useLetViewGo, useSaveView, useViews } from './queries';
import styles from './records.module.css';
import { words } from './words';

interface Props {
  /** The list's narrowing as it is now. */
  query: string;
  mayShare: boolean;
  onShow: (query: string) => void;
}

/** Lists narrowed in ways that are wanted again: shown, saved, let go. */
export function SavedViews({ query, mayShare, onShow }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={setOpen}
      content={
        <Views
          query={query}
          mayShare={mayShare}
          onShow={(saved) => {
            setOpen(false);
            onShow(saved);
          }}
        />
      }
    >
      <Button type="text">{words.views}</Button>
    </Popover>
  );
}

function Views({ query, mayShare, onShow }: Props) {
  const views = useViews();
  const save = useSaveView();
  const letGo = useLetViewGo();
  const tray = useTray();
  const [name, setName] = useState('');
  const [forAll, setForAll] = useState(false);
  return (
    <div className={styles.views}>
      {views.data?.length === 0 && <p className={styles.quiet}>{words.noViews}</p>}
      <ul>
        {(views.data ?? []).map((view) => (
          <li key={view.id}>
            <Button
              type="text"
              className={view.query === query ? styles.viewHere : styles.view}
              onClick={() => onShow(view.query)}
            >
              {view.name}
              {view.forAll && <span className={styles.quiet}>{words.viewOfOffice}</span>}
            </Button>
            {view.mine && (
              <Button
                type="text"
                aria-label={words.letGo(view.name)}
                icon={<DeleteOutlined />}
                onClick={() => letGo.mutate(view.id)}
              />
            )}
          </li>
        ))}
      </ul>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(
            { name: name.trim(), query, forAll },
            {
              onSuccess: () => {
                tray.tell({ text: words.viewSaved(name.trim()) });
                setName('');
              },
            },
          );
        }}
      >
        <label>
          {words.saveView}
          <Input
            value={name}
            maxLength={60}
            placeholder={words.viewName}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <div className={styles.viewEnd}>
          {mayShare && (
            <Checkbox checked={forAll} onChange={(event) => setForAll(event.target.checked)}>
              {words.viewForAll}
            </Checkbox>
          )}
          <span className={styles.grow} />
          <Button htmlType="submit" disabled={name.trim() === ''} loading={save.isPending}>
            {words.save}
          </Button>
        </div>
      </form>
      {(save.error ?? letGo.error) && <Fault error={(save.error ?? letGo.error)!} />}
    </div>
  );
}
