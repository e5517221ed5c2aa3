import type { EditEffect } from '@/core/edit';
import { counted, countedOr } from '@/core/edit';

const people = (n: number): string => countedOr('nobody', n, 'person', 'people');

/** "24 people lose, nobody gains." */
export function effectInWords({ gaining, losing, signedOut, elements }: EditEffect): string {
  const out = [
    ...(signedOut.gains ? ['those who are signed out gain'] : []),
    ...(signedOut.loses ? ['those who are signed out lose'] : []),
  ];
  if (gaining.length + losing.length + out.length === 0) return 'Nobody gains or loses by it.';
  const [lose, gain] = [people(losing.length), people(gaining.length)];
  const said = [
    `${gain} ${gaining.length > 1 ? 'gain' : 'gains'}`,
    `${lose} ${losing.length > 1 ? 'lose' : 'loses'}`,
    ...out,
  ].join(', ');
  const of = counted(elements.length, 'element');
  return `${said.charAt(0).toUpperCase()}${said.slice(1)} (${of}).`;
}
