import { Button } from 'antd';
import { useState } from 'react';
import { usePlaces } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { PlaceDialog } from './PlaceDialog';
import { useAddPlace, type Place } from './queries';
import { words } from './words';

export function PlaceList({ mayChange }: { mayChange: boolean }) {
  const places = usePlaces();
  const add = useAddPlace();
  const [open, setOpen] = useState<Place | null>(null);
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
          <Table heads={[words.code, words.name, mayChange && { unseen: words.placeTerms }]}>
            {places.data.map((place) => (
              <tr key={place.id}>
                <td className="number">{place.code}</td>
                <th scope="row">{place.name}</th>
                {mayChange && (
                  <td className={styles.buttons}>
                    <Button
                      size="small"
                      onClick={() => setOpen(place)}
                      aria-label={`${words.placeTerms}: ${place.name}`}
                    >
                      {words.placeTerms}
                    </Button>
                  </td>
                )}
              </tr>
            ))}
          </Table>
        </div>
      )}
      {open && <PlaceDialog place={open} onClose={() => setOpen(null)} />}
    </>
  );
}
