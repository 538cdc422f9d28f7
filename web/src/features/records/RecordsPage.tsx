import { Button, Segmented } from 'antd';
import { useKeys } from '../../shared/ui/keys';
import { RecordList } from './RecordList';
import { RecordSheet } from './RecordSheet';
import { TicketForm } from './TicketForm';
import styles from './records.module.css';
import { useRecord, useRecords } from './queries';
import { useRecordsPage } from './useRecordsPage';
import { words } from './words';

/** The list, and beside it the chosen record or the form. */
export function RecordsPage({ mayMake }: { mayMake: boolean }) {
  const page = useRecordsPage();
  const list = useRecords({ find: page.find, state: page.state });
  const record = useRecord(page.chosen);
  useKeys({ Escape: page.close });
  const side = page.making || page.chosen !== null;
  return (
    <div className={side ? styles.split : styles.whole}>
      <section className={styles.left} aria-label="Records">
        <div className={styles.bar}>
          <h1 className={styles.heading}>Records</h1>
          <Segmented
            value={page.state}
            options={[
              { value: 'open', label: words.open },
              { value: 'done', label: words.done },
              { value: 'all', label: words.all },
            ]}
            onChange={(value) => page.filter('state', value)}
          />
          {page.find && (
            <span className={styles.finding}>
              with “{page.find}”
              <Button type="link" size="small" onClick={() => page.filter('find', '')}>
                Show all
              </Button>
            </span>
          )}
          <span className={styles.grow} />
          {mayMake && (
            <Button type="primary" onClick={page.make}>
              {words.make}
            </Button>
          )}
        </div>
        <RecordList
          list={list}
          chosen={page.chosen}
          narrow={side}
          filtered={page.find !== '' || page.state !== 'open'}
          onOpen={page.open}
          onMake={mayMake ? page.make : undefined}
        />
      </section>
      {side && (
        <aside className={styles.side} aria-label={page.making ? words.newTicket : 'Record'}>
          {page.making ? (
            <TicketForm key="new" onClose={page.close} onSaved={page.open} />
          ) : page.editing && record.data ? (
            <TicketForm
              key={page.chosen}
              before={record.data}
              onClose={() => page.chosen && page.open(page.chosen)}
              onSaved={page.open}
            />
          ) : (
            page.chosen !== null && (
              <RecordSheet
                key={page.chosen}
                id={page.chosen}
                query={record}
                onClose={page.close}
                onEdit={() => page.chosen && page.edit(page.chosen)}
              />
            )
          )}
        </aside>
      )}
    </div>
  );
}
