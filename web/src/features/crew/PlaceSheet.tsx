import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { today } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import styles from './crew.module.css';
import { PlaceNameDialog } from './NameDialog';
import { PlaceDialog } from './PlaceDialog';
import { usePlaceTerms, type Place } from './queries';
import { useRegions, useWorkedDays } from './regionQueries';
import { Part, Sheet } from './Sheet';
import { words } from './words';

/** All that is settled of a place. */
export function PlaceSheet({ place, onClose }: { place: Place; onClose: () => void }) {
  const terms = usePlaceTerms(place.id);
  const days = useWorkedDays(place.id);
  const regions = useRegions();
  const [open, setOpen] = useState<'name' | 'terms' | null>(null);
  const error = terms.error ?? days.error;
  const region = regions.data?.find((one) => one.id === days.data?.region)?.name;
  return (
    <Sheet
      name={place.name}
      about={[place.code, place.zone, region].filter(Boolean).join(' · ')}
      links={
        <>
          <Button
            size="small"
            aria-label={words.nameTitle(place.name)}
            onClick={() => setOpen('name')}
          >
            {words.change}
          </Button>
          <Link to={`/records?place=${place.id}`}>{words.theirWork}</Link>
          <Link to={`/board/paper?of=place-${place.id}&from=${today()}&days=14`}>
            {words.onPaper}
          </Link>
        </>
      }
      onClose={onClose}
    >
      {error && <Fault error={error} reads />}
      {terms.data && (
        <Part
          name={words.placeTerms}
          aside={
            <Button
              size="small"
              aria-label={`${words.placeTerms}: ${place.name}`}
              onClick={() => setOpen('terms')}
            >
              {words.change}
            </Button>
          }
        >
          <dl className={styles.facts}>
            <dt>{words.address}</dt>
            <dd>{terms.data.address ?? words.unsaid}</dd>
            <dt>{words.position}</dt>
            <dd>
              {terms.data.latitude === undefined
                ? words.unsaid
                : `${terms.data.latitude}, ${terms.data.longitude}`}
            </dd>
            <dt>{words.holds}</dt>
            <dd>
              {terms.data.capacity === undefined
                ? words.unsaid
                : words.capacity(terms.data.capacity, terms.data.ofPeople)}
            </dd>
            <dt>{words.opening}</dt>
            <dd>
              {terms.data.opening.length === 0 && words.unsaid}
              {terms.data.opening.map((one) => (
                <div key={`${one.weekday} ${one.from}`}>
                  {words.weekdays[one.weekday - 1]?.label} {one.from}–{one.until}
                </div>
              ))}
            </dd>
          </dl>
        </Part>
      )}
      {open === 'terms' && <PlaceDialog place={place} onClose={() => setOpen(null)} />}
      {open === 'name' && <PlaceNameDialog place={place} onClose={() => setOpen(null)} />}
    </Sheet>
  );
}
