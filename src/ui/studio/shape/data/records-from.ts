/** Which records of an application are meant. */
export interface RecordsFrom {
  readonly app: string;
  readonly records: 'sample' | 'live';
}
