import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take, type Client, type Schemas } from '../../shared/api/client';
import { useLookedAt } from '../../shared/look/useLookedAt';

export type Person = Schemas['Person'];
export type Team = Schemas['Team'];
export type Place = Schemas['Place'];
export type HouseChange = Schemas['HouseChange'];

export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: () => take(api.GET('/api/v1/people')) });
export const useTeams = () =>
  useQuery({ queryKey: ['teams'], queryFn: () => take(api.GET('/api/v1/teams')) });
export const usePlaces = () =>
  useQuery({ queryKey: ['places'], queryFn: () => take(api.GET('/api/v1/places')) });

function useStale() {
  const client = useQueryClient();
  return () => {
    for (const key of ['people', 'teams', 'places', 'records', 'record']) {
      void client.invalidateQueries({ queryKey: [key] });
    }
  };
}

function useCrewChange<V, R>(call: (value: V) => Promise<R>) {
  const stale = useStale();
  return useMutation({ mutationFn: call, onSuccess: stale });
}

/** One that may show somebody more, or take entries from them. */
function useSeenChange<V, R>(call: (to: Client, value: V) => Promise<R>) {
  return useLookedAt(call, useStale());
}

export const useAddPerson = () =>
  useCrewChange((body: Schemas['CrewPersonChange']) => take(api.POST('/api/v1/people', { body })));

export const useChangePerson = (id: number) =>
  useSeenChange((to, body: Schemas['CrewPersonChange']) =>
    take(to.PATCH('/api/v1/people/{id}', { params: { path: { id } }, body })),
  );

export const useInvite = (id: number) =>
  useCrewChange((body: Schemas['InvitationWish']) =>
    take(api.POST('/api/v1/people/{id}/invitation', { params: { path: { id } }, body })),
  );

export const useAddTeam = () =>
  useCrewChange((body: Schemas['TeamChange']) => take(api.POST('/api/v1/teams', { body })));

export const useJoin = () =>
  useSeenChange((to, { team, person }: { team: number; person: number }) =>
    take(
      to.POST('/api/v1/teams/{id}/members', { params: { path: { id: team } }, body: { person } }),
    ),
  );

export const useLeave = () =>
  useSeenChange((to, { team, member }: { team: number; member: number }) =>
    take(
      to.DELETE('/api/v1/teams/{id}/members/{member}', { params: { path: { id: team, member } } }),
    ),
  );

export const useAddPlace = () =>
  useCrewChange((body: Schemas['PlaceChange']) => take(api.POST('/api/v1/places', { body })));

export const useHouse = () =>
  useQuery({ queryKey: ['house'], queryFn: () => take(api.GET('/api/v1/house')) });

export function useChangeHouse() {
  const client = useQueryClient();
  return useLookedAt(
    (to, body: HouseChange) => take(to.PATCH('/api/v1/house', { body })),
    () => void client.invalidateQueries(),
  );
}
