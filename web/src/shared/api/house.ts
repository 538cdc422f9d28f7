import { useQuery } from '@tanstack/react-query';
import { api, take } from './client';
import { keys } from './keys';

/** What a house has, asked by every part of it. */

export const usePeople = () =>
  useQuery({ queryKey: keys.people, queryFn: () => take(api.GET('/api/v1/people')) });

export const usePlaces = () =>
  useQuery({ queryKey: keys.places, queryFn: () => take(api.GET('/api/v1/places')) });

export const useTeams = () =>
  useQuery({ queryKey: keys.teams, queryFn: () => take(api.GET('/api/v1/teams')) });

export const useRoles = () =>
  useQuery({ queryKey: keys.roles, queryFn: () => take(api.GET('/api/v1/roles')) });

/** What the house keeps on its records. */
export const useDetails = () =>
  useQuery({ queryKey: keys.details, queryFn: () => take(api.GET('/api/v1/details')) });

export const useCalendars = () =>
  useQuery({ queryKey: keys.calendars, queryFn: () => take(api.GET('/api/v1/calendars')) });

export const useHouse = () =>
  useQuery({ queryKey: keys.house, queryFn: () => take(api.GET('/api/v1/house')) });
