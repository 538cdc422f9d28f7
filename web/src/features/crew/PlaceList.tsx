import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { useAddPlace, usePlaces } from './queries';
import { words } from './words';

export function PlaceList({ mayChange }: { mayChange: boolean }) {
  const places = usePlaces();
  const add = useAddPlace();
  if (places.isPending) {
    return <Loading what={words.loading} />;
  }
  if (places.error) {
    return <Fault error={places.error} again={() => void places.refetch()} />;
  }
  return (
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
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col">{words.code}</th>
                <th scope="col">{words.name}</th>
              </tr>
            </thead>
            <tbody>
              {places.data.map((place) => (
                <tr key={place.id}>
                  <td className="number">{place.code}</td>
                  <th scope="row">{place.name}</th>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}
