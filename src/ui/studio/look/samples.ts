import { askOnce } from './ask-once';

export interface Sample {
  readonly id: string;
  readonly label: string;
  /** What tells it from others of the same name. */
  readonly more: string;
}

/** Records of an entity whose name has those words; what was asked for is asked once. */
export function samplesOf(
  api: string,
  entity: string,
  records: 'sample' | 'live' = 'sample',
  q = '',
): Promise<readonly Sample[]> {
  const url = `${api}/samples?${new URLSearchParams({ entity, records, q })}`;
  return askOnce<{ samples: Sample[] }>(url).then((answer) => (answer.ok ? answer.value.samples : []));
}
