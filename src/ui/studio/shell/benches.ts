/** The benches in the order in which an application is worked at; each is a folder of the address. */
export const BENCHES = [
  { key: 'shape', name: 'Shape' },
  { key: 'people', name: 'People' },
  { key: 'gates', name: 'Gates' },
  { key: 'look', name: 'Look' },
  { key: 'prove', name: 'Prove' },
  { key: 'release', name: 'Release' },
] as const;
