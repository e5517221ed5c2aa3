import type { EditEffect } from '@/core/edit';
import { counted, countedOr } from '@/core/edit';

const people = (n: number): string => countedOr('nobody', n, 'person', 'people');

/** "24 people lose, nobody gains." */
export function effectInWords({ gaining, losing, signedOut, elements }: EditEffect): string {
  const out = [
    ...(signedOut.gains ? ['signed-out visitors gain access'] : []),
    ...(signedOut.loses ? ['signed-out visitors lose access'] : []),
  ];
  if (gaining.length + losing.length + out.length === 0) return 'Nobody gains or loses access.';
  const [lose, gain] = [people(losing.length), people(gaining.length)];
  const said = [
    `${gain} ${gaining.length > 1 ? 'gain access' : 'gains access'}`,
    `${lose} ${losing.length > 1 ? 'lose access' : 'loses access'}`,
    ...out,
  ].join(', ');
  const of = counted(elements.length, 'element');
  return `${said.charAt(0).toUpperCase()}${said.slice(1)} (${of}).`;
}
