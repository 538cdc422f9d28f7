import { useCallback } from 'react';
import type { Order } from './queries';
import { useNavigate, useParams, useSearchParams } from 'react-router';

/** The page's state, all of it in the address: find line, state, chosen record, what is edited. */
export function useRecordsPage() {
  const params = useParams();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const chosen = params.id && params.id !== 'new' ? Number(params.id) : null;
  const find = search.get('find') ?? '';
  const state = search.get('state') ?? 'open';
  const kind = search.get('kind') ?? '';
  const person = Number(search.get('person') ?? 0);
  const place = Number(search.get('place') ?? 0);
  const sort = (search.get('sort') ?? 'SOONEST') as Order;

  const go = useCallback(
    (path: string, edit = false) => {
      const next = new URLSearchParams(search);
      next.delete('edit');
      if (edit) {
        next.set('edit', '1');
      }
      const query = next.toString();
      void navigate('/records' + path + (query ? '?' + query : ''));
    },
    [navigate, search],
  );

  const filter = useCallback(
    (name: 'find' | 'state' | 'kind' | 'person' | 'place' | 'sort' | 'columns', value: string) => {
      const next = new URLSearchParams(search);
      const usual = name === 'state' ? 'open' : name === 'sort' ? 'SOONEST' : '';
      if (value === usual || value === '0') {
        next.delete(name);
      } else {
        next.set(name, value);
      }
      setSearch(next, { replace: name === 'find' });
    },
    [search, setSearch],
  );

  /** The narrowing as a saved view keeps it. */
  const kept = new URLSearchParams(search);
  kept.delete('edit');
  const query = kept.toString();
  const show = useCallback((saved: string) => setSearch(saved), [setSearch]);

  return {
    query,
    show,
    chosen,
    making: params.id === 'new',
    /** A new one begins as the list is narrowed. */
    draft:
      person || place || kind
        ? JSON.stringify({
            ...(person && { lead: person }),
            ...(place && { place }),
            ...(kind && { kind }),
          })
        : null,
    editing: search.get('edit') === '1',
    find,
    state,
    kind,
    person,
    place,
    sort,
    /** Beside those that every list has, by their keys. */
    columns: (search.get('columns') ?? '').split(',').filter(Boolean),
    wish: { find, state, kind, person, place, sort },
    filter,
    open: (id: number) => go('/' + id),
    edit: (id: number) => go('/' + id, true),
    make: () => go('/new'),
    close: () => go(''),
  };
}
