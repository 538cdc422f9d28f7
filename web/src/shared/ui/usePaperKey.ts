import { useNavigate } from 'react-router';
import { useKeys } from './keys';

/** The key that leads to what stands here, on paper; without one where there is no such page. */
export function usePaperKey(paper: string | false): void {
  const navigate = useNavigate();
  useKeys(paper === false ? {} : { P: () => void navigate(paper) });
}
