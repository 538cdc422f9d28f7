import { useRead } from './ask';
import { api, type Schemas } from './client';
import { keys } from './keys';

/** What a house has, asked by every part of it. */

export const usePeople = () => useRead(keys.people, () => api.GET('/api/v1/people'));

/** Whether somebody can be given work: the organisation's own people and agency people. */
export const takesWork = ({ standing }: Schemas['Person']) =>
  standing === 'HOUSE' || standing === 'AGENCY';

export const usePlaces = () => useRead(keys.places, () => api.GET('/api/v1/places'));

export const useTeams = () => useRead(keys.teams, () => api.GET('/api/v1/teams'));

export const useRoles = () => useRead(keys.roles, () => api.GET('/api/v1/roles'));

/** What the house keeps on its records. */
export const useDetails = () => useRead(keys.details, () => api.GET('/api/v1/details'));

export const useCalendars = () => useRead(keys.calendars, () => api.GET('/api/v1/calendars'));

export const useHouse = () => useRead(keys.house, () => api.GET('/api/v1/house'));
