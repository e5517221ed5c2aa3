import type { ReactNode } from 'react';
import type { Proof } from './proof';

/** What is known at a glance; each leads to its part. */
export function Tiles({
  proof,
  expected,
  onPart,
}: {
  proof: Proof | null;
  expected: number;
  onPart: (part: 'look-at' | 'expected') => void;
}) {
  const open = proof?.findings.filter((one) => !one.aside) ?? [];
  const letsIn = open.filter(({ rank }) => rank === 'lets-in').length;
  const broken = proof?.broken.length ?? 0;
  return (
    <div className="grid auto-cols-fr grid-flow-col border-t-2 border-ink bg-paper">
      <Tile
        figure={proof ? String(open.length) : '…'}
        says={open.length === 1 ? 'thing to look at' : 'things to look at'}
        more={
          letsIn === 0
            ? 'none lets somebody in'
            : letsIn === 1
              ? '1 lets somebody in'
              : `${letsIn} let somebody in`
        }
        amber={open.length > 0}
        onPress={() => onPart('look-at')}
      />
      <Tile
        figure={expected === 0 ? 'None' : `${expected - broken} of ${expected}`}
        says={expected === 0 ? 'expected yet' : 'expectations hold'}
        more={
          expected === 0
            ? 'keep what must stay as it is'
            : broken === 0
              ? 'the draft breaks none'
              : `${broken} broken by the draft`
        }
        amber={broken > 0}
        onPress={() => onPart('expected')}
      />
    </div>
  );
}

function Tile({
  figure,
  says,
  more,
  amber,
  onPress,
}: {
  figure: ReactNode;
  says: string;
  more: string;
  amber: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className="border-r border-rule px-3.5 pt-2 pb-2.5 text-left hover:bg-plate"
      onClick={onPress}
    >
      <span
        className={`block text-[22px] leading-tight font-semibold tabular-nums ${amber ? 'text-amber' : ''}`}
      >
        {figure}
      </span>
      <span className="block">{says}</span>
      <span className="block text-[13px] text-quiet">{more}</span>
    </button>
  );
}
