import { Button, Dropdown } from 'antd';
import type { ReactNode } from 'react';
import type { Step, StepChange } from './queries';
import { words } from './words';

interface Props {
  step: string;
  standing: Step['standing'];
  /** Says it of the step; without it nothing can be said. */
  say?: (change: StepChange) => void;
  /** What else can be done, before and after. */
  first?: { key: string; label: ReactNode };
  onHand?: () => void;
}

/** What can be done with one step of a set. */
export function StepMenu({ step, standing, say, first, onHand }: Props) {
  const isOut = standing === 'LEFT_OUT';
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          first,
          say && {
            key: 'out',
            label: isOut ? words.putIn : words.leaveOut,
            onClick: () => say({ step, leftOut: !isOut }),
          },
          onHand && { key: 'hand', label: words.byHand, onClick: onHand },
          say &&
            standing === 'BY_HAND' && {
              key: 'chain',
              label: words.byChain,
              onClick: () => say({ step, date: null }),
            },
        ].filter((item) => item !== undefined && item !== false),
      }}
    >
      <Button type="text" size="small" aria-label={`${words.change} ${step}`}>
        …
      </Button>
    </Dropdown>
  );
}
