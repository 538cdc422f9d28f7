import { Button, Checkbox, Dropdown, Popover, Segmented } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../shared/api/client';
import { useDetails, usePeople, usePlaces } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { useKeys } from '../../shared/ui/keys';
import { usePaperKey } from '../../shared/ui/usePaperKey';
import { columnsOf, ordersOf, type Column } from './columns';
import { Found } from './Found';
import { Many } from './Many';
import { RecordList } from './RecordList';
import { RecordSide } from './RecordSide';
import styles from './records.module.css';
import { SavedViews } from './SavedViews';
import { useFacets, useRecords, wishQuery, type ListWish, type Order } from './queries';
import { useRecordsPage } from './useRecordsPage';
import { words } from './words';

type Facet = Schemas['RecordFacet'];

/** The list, and beside it the chosen record or the form. */
export function RecordsPage({ mayMake, mayShare }: { mayMake: boolean; mayShare: boolean }) {
  const page = useRecordsPage();
  const list = useRecords(page.wish);
  const [chosen, setChosen] = useState<number[]>([]);
  const turn = (id: number) =>
    setChosen((now) => (now.includes(id) ? now.filter((one) => one !== id) : [...now, id]));
  const side = page.making || page.chosen !== null;
  const details = useDetails();
  const all = columnsOf(details.data ?? []);
  const extra = all.filter((one) => page.columns.includes(one.key));
  useKeys({ Escape: () => (chosen.length > 0 ? setChosen([]) : page.close()) });
  usePaperKey(!side && '/records/paper?' + page.query);
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
          {!side && <Facets page={page} mayShare={mayShare} />}
          <span className={styles.grow} />
          {!side && (
            <>
              <ColumnChoice
                all={all}
                chosen={page.columns}
                onChoose={(keys) => page.filter('columns', keys.join(','))}
              />
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
          extra={extra}
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
function Facets({
  page,
  mayShare,
}: {
  page: ReturnType<typeof useRecordsPage>;
  mayShare: boolean;
}) {
  const people = usePeople();
  const places = usePlaces();
  const details = useDetails();
  const facets = useFacets(page.wish).data;
  /** What there is much of comes first; where counts are known, each says its own. */
  const counted = <V extends string | number>(
    sort: Facet['sort'],
    options: { value: V; label: string }[],
  ) => {
    const values = facets?.facets.find((one) => one.sort === sort)?.values ?? [];
    const counts = new Map(
      values.map((one) => [String(one.kind ?? one.state ?? one.id), one.count]),
    );
    return options
      .map((one) => ({ ...one, count: counts.get(String(one.value)) ?? 0 }))
      .sort((a, b) => b.count - a.count)
      .map(({ count, ...one }) => (count > 0 ? { ...one, hint: words.number(count) } : one));
  };
  return (
    <>
      <Choice
        className={styles.facet}
        aria-label={words.kind}
        value={page.kind}
        options={[{ value: '', label: words.allKinds }, ...counted('KIND', words.kindChoices)]}
        onChange={(kind) => page.filter('kind', kind)}
      />
      <Choice
        className={styles.facet}
        aria-label={words.whose}
        value={page.person}
        options={[
          { value: 0, label: words.allPeople },
          ...counted(
            'PERSON',
            (people.data ?? []).map((p) => ({ value: p.id, label: p.name })),
          ),
        ]}
        onChange={(person) => page.filter('person', String(person))}
      />
      <Choice
        className={styles.facet}
        aria-label={words.place}
        value={page.place}
        options={[
          { value: 0, label: words.allPlaces },
          ...counted(
            'PLACE',
            (places.data ?? []).map((p) => ({ value: p.id, label: p.name })),
          ),
        ]}
        onChange={(place) => page.filter('place', String(place))}
      />
      <Choice
        className={styles.facet}
        aria-label={words.order}
        value={page.sort}
        options={[
          ...words.orders.filter((one) => mayShare || !one.value.startsWith('CHANGED')),
          ...detailOrders(page.sort, details.data ?? []),
        ]}
        onChange={(sort) => page.filter('sort', sort)}
      />
      {facets && (
        <span className={styles.total}>
          {facets.over ? words.overTotal(facets.total) : words.count(facets.total, false)}
        </span>
      )}
    </>
  );
}

/** The order by a detail, where the list stands in that. */
function detailOrders(sort: Order, details: Schemas['Detail'][]) {
  const detail = details.find((one) => ordersOf(one.key).includes(sort));
  return detail
    ? [{ value: sort, label: words.byDetail(detail.label, sort.startsWith('DETAIL:')) }]
    : [];
}

/** Which columns there are beside those that every list has. */
function ColumnChoice({
  all,
  chosen,
  onChoose,
}: {
  all: Column[];
  chosen: string[];
  onChoose: (keys: string[]) => void;
}) {
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      content={
        <Checkbox.Group
          className={styles.columnChoice}
          value={chosen}
          options={all.map((one) => ({ value: one.key, label: one.label }))}
          onChange={onChoose}
        />
      }
    >
      <Button type="text">{words.chooseColumns}</Button>
    </Popover>
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
