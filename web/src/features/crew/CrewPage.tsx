import { Button } from 'antd';
import { useNavigate, useParams } from 'react-router';
import { worded } from '../../shared/words';
import styles from './crew.module.css';
import { House } from './House';
import { Limits } from './Limits';
import { Margins } from './Margins';
import { PeopleList } from './PeopleList';
import { PlaceList } from './PlaceList';
import { RegionList } from './RegionList';
import { TeamList } from './TeamList';
import { ChangeLog } from './ChangeLog';
import { words } from './words';

/** Who there is: people, teams, places, and what is settled for all. Coordinators change them, the crew may look. */
export function CrewPage({ mayChange }: { mayChange: boolean }) {
  const tab = useParams().tab ?? 'people';
  const navigate = useNavigate();
  return (
    <section className={styles.page} aria-label="Crew">
      <div className={styles.bar}>
        <h1 className={styles.heading}>{worded(words.tabs, tab)}</h1>
        <span className={styles.grow} />
        {mayChange && (tab === 'people' || tab === 'places') && (
          <Button
            type="text"
            onClick={() => void navigate('/files?what=' + (tab === 'places' ? 'PLACES' : 'PEOPLE'))}
          >
            {words.bringIn}
          </Button>
        )}
      </div>
      {tab === 'people' && <PeopleList mayChange={mayChange} />}
      {tab === 'teams' && <TeamList mayChange={mayChange} />}
      {tab === 'places' && <PlaceList mayChange={mayChange} />}
      {tab === 'house' && mayChange && <House />}
      {tab === 'regions' && mayChange && <RegionList />}
      {tab === 'limits' && mayChange && <Limits />}
      {tab === 'margins' && mayChange && <Margins />}
      {tab === 'changes' && mayChange && <ChangeLog />}
    </section>
  );
}
