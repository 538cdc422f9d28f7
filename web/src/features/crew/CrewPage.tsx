import { Button, Segmented } from 'antd';
import { useNavigate, useParams } from 'react-router';
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
        <h1 className={styles.heading}>Crew</h1>
        <Segmented
          value={tab}
          options={[
            { value: 'people', label: words.people },
            { value: 'teams', label: words.teams },
            { value: 'places', label: words.places },
            ...(mayChange
              ? [
                  { value: 'house', label: words.house },
                  { value: 'regions', label: words.regionsTab },
                  { value: 'limits', label: words.limitsTab },
                  { value: 'margins', label: words.marginsTab },
                  { value: 'changes', label: words.changesTab },
                ]
              : []),
          ]}
          onChange={(value) => void navigate('/crew/' + value)}
        />
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
