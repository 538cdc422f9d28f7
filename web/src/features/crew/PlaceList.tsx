import { Link, useSearchParams } from 'react-router';
import { usePlaces } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { PlaceSheet } from './PlaceSheet';
import { useAddPlace } from './queries';
import { Beside } from './Sheet';
import { words } from './words';

export function PlaceList({ mayChange }: { mayChange: boolean }) {
  const places = usePlaces();
  const add = useAddPlace();
  const [search, setSearch] = useSearchParams();
  if (places.isPending) {
    return <Loading what={words.loading} />;
  }
  if (places.error) {
    return <Fault error={places.error} reads />;
  }
  const chosen = places.data.find((one) => one.id === Number(search.get('place')));
  const list = (
    <>
      {mayChange && (
        <AddLine
          label={words.addPlace}
          code={words.code}
          pending={add.isPending}
          error={add.error}
          onAdd={(name, code, done) => add.mutate({ name, code }, { onSuccess: done })}
        />
      )}
      {places.data.length === 0 && <p className={styles.teach}>{words.noPlaces}</p>}
      {places.data.length > 0 && (
        <div className={styles.scroll}>
          <Table heads={[words.code, words.name]}>
            {places.data.map((place) => (
              <tr key={place.id}>
                <td className="number">{place.code}</td>
                <th scope="row">
                  {mayChange ? (
                    <Link to={`?place=${place.id}`} aria-current={place === chosen || undefined}>
                      {place.name}
                    </Link>
                  ) : (
                    place.name
                  )}
                </th>
              </tr>
            ))}
          </Table>
        </div>
      )}
    </>
  );
  return (
    <Beside list={list}>
      {chosen && mayChange && (
        <PlaceSheet key={chosen.id} place={chosen} onClose={() => setSearch({})} />
      )}
    </Beside>
  );
}
