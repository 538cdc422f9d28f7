import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take, type Schemas } from '../../shared/api/client';

export type Person = Schemas['Person'];
export type Team = Schemas['Team'];
export type Place = Schemas['Place'];

export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: () => take(api.GET('/api/v1/people')) });
export const useTeams = () =>
  useQuery({ queryKey: ['teams'], queryFn: () => take(api.GET('/api/v1/teams')) });
export const usePlaces = () =>
  useQuery({ queryKey: ['places'], queryFn: () => take(api.GET('/api/v1/places')) });

function useCrewChange<V, R>(call: (value: V) => Promise<R>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: call,
    onSuccess: () => {
      for (const key of ['people', 'teams', 'places', 'records', 'record']) {
        void client.invalidateQueries({ queryKey: [key] });
      }
    },
  });
}

export const useAddPerson = () =>
  useCrewChange((body: Schemas['CrewPersonChange']) => take(api.POST('/api/v1/people', { body })));

export const useChangePerson = (id: number) =>
  useCrewChange((body: Schemas['CrewPersonChange']) =>
    take(api.PATCH('/api/v1/people/{id}', { params: { path: { id } }, body })),
  );

export const useInvite = (id: number) =>
  useCrewChange((body: Schemas['InvitationWish']) =>
    take(api.POST('/api/v1/people/{id}/invitation', { params: { path: { id } }, body })),
  );

export const useAddTeam = () =>
  useCrewChange((body: Schemas['TeamChange']) => take(api.POST('/api/v1/teams', { body })));

export const useJoin = () =>
  useCrewChange(({ team, person }: { team: number; person: number }) =>
    take(
      api.POST('/api/v1/teams/{id}/members', { params: { path: { id: team } }, body: { person } }),
    ),
  );

export const useLeave = () =>
  useCrewChange(({ team, member }: { team: number; member: number }) =>
    take(
      api.DELETE('/api/v1/teams/{id}/members/{member}', { params: { path: { id: team, member } } }),
    ),
  );

export const useAddPlace = () =>
  useCrewChange((body: Schemas['PlaceChange']) => take(api.POST('/api/v1/places', { body })));
