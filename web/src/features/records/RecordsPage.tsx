import { Button, Dropdown, Segmented } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { usePeople, usePlaces } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { useKeys } from '../../shared/ui/keys';
import { Found } from './Found';
import { Many } from './Many';
import { RecordList } from './RecordList';
import { RecordSide } from './RecordSide';
import styles from './records.module.css';
import { SavedViews } from './SavedViews';
import { useRecords, wishQuery, type ListWish } from './queries';
import { useRecordsPage } from './useRecordsPage';
import { words } from './words';

/** The list, and beside it the chosen record or the form. */
export function RecordsPage({ mayMake, mayShare }: { mayMake: boolean; mayShare: boolean }) {
  const page = useRecordsPage();
  const list = useRecords(page.wish);
  const [chosen, setChosen] = useState<number[]>([]);
  const turn = (id: number) =>
    setChosen((now) => (now.includes(id) ? now.filter((one) => one !== id) : [...now, id]));
  useKeys({ Escape: () => (chosen.length > 0 ? setChosen([]) : page.close()) });
  const side = page.making || page.chosen !== null;
  return (
    <div className={side ? styles.split : styles.whole}>
      <section className={styles.left} aria-label="Records">
        <div className={styles.bar}>
          <h1 className={styles.heading}>Records</h1>
          <Segmented
            tabIndex={-1}
            aria-label={words.which}
            value={page.state}
            options={[
              { value: 'open', label: words.open },
              { value: 'done', label: words.done },
              { value: 'all', label: words.all },
            ]}
            onChange={(value) => page.filter('state', value)}
          />
          {!side && <Facets page={page} />}
          <span className={styles.grow} />
          {!side && (
            <>
              <SavedViews query={page.query} mayShare={mayShare} onShow={page.show} />
              <Files wish={page.wish} query={page.query} mayMake={mayMake} />
            </>
          )}
          {mayMake && (
            <Button type="primary" onClick={page.make}>
              {words.make}
            </Button>
          )}
        </div>
        {page.find && <Found line={page.find} onLine={(line) => page.filter('find', line)} />}
        {chosen.length > 0 && !side && <Many chosen={chosen} onNone={() => setChosen([])} />}
        <RecordList
          list={list}
          chosen={page.chosen}
          narrow={side}
          sort={page.sort}
          onSort={(sort) => page.filter('sort', sort)}
          filtered={
            page.find !== '' ||
            page.state !== 'open' ||
            page.kind !== '' ||
            page.person > 0 ||
            page.place > 0
          }
          onOpen={page.open}
          onMake={mayMake ? page.make : undefined}
          many={mayMake && !side ? { ids: chosen, turn } : undefined}
        />
      </section>
      {side && (
        <aside className={styles.side} aria-label={page.making ? words.newRecord : 'Record'}>
          <RecordSide
            chosen={page.chosen}
            making={page.making}
            editing={page.editing}
            draft={page.draft}
            onClose={page.close}
            onEdit={() => page.chosen && page.edit(page.chosen)}
            onOpen={page.open}
          />
        </aside>
      )}
    </div>
  );
}

/** Of which kind, whose and where. */
function Facets({ page }: { page: ReturnType<typeof useRecordsPage> }) {
  const people = usePeople();
  const places = usePlaces();
  return (
    <>
      <Choice
        className={styles.facet}
        aria-label={words.kind}
        value={page.kind}
        options={[{ value: '', label: words.allKinds }, ...words.kindChoices]}
        onChange={(kind) => page.filter('kind', kind)}
      />
      <Choice
        className={styles.facet}
        aria-label={words.whose}
        value={page.person}
        options={[
          { value: 0, label: words.allPeople },
          ...(people.data ?? []).map((p) => ({ value: p.id, label: p.name })),
        ]}
        onChange={(person) => page.filter('person', String(person))}
      />
      <Choice
        className={styles.facet}
        aria-label={words.place}
        value={page.place}
        options={[
          { value: 0, label: words.allPlaces },
          ...(places.data ?? []).map((p) => ({ value: p.id, label: p.name })),
        ]}
        onChange={(place) => page.filter('place', String(place))}
      />
    </>
  );
}

/** The list as a file, and work from a file. */
function Files({ wish, query, mayMake }: { wish: ListWish; query: string; mayMake: boolean }) {
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          ...(mayMake ? [{ key: 'in', label: <Link to="/files">{words.bringIn}</Link> }] : []),
          { key: 'paper', label: <Link to={'/records/paper?' + query}>{words.onPaper}</Link> },
          { key: 'csv', label: <a href={fileOf('csv', wish)}>{words.csv}</a> },
          { key: 'ics', label: <a href={fileOf('ics', wish)}>{words.ics}</a> },
        ],
      }}
    >
      <Button type="text">{words.files}</Button>
    </Dropdown>
  );
}

/** Where the list is had as a file. */
function fileOf(sort: 'csv' | 'ics', wish: ListWish): string {
  const query = new URLSearchParams();
  Object.entries(wishQuery(wish)).forEach(([name, value]) => query.set(name, String(value)));
  return `/api/v1/records.${sort}?${query.toString()}`;
}
