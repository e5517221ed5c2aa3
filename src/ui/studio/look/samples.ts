export interface Sample {
  readonly id: string;
  readonly label: string;
  /** What tells it from others of the same name. */
  readonly more: string;
}

const known = new Map<string, Promise<readonly Sample[]>>();

/** Records of an entity whose name has those words; what was asked for is asked once. */
export function samplesOf(
  api: string,
  entity: string,
  records: 'sample' | 'live' = 'sample',
  q = '',
): Promise<readonly Sample[]> {
  const url = `${api}/samples?${new URLSearchParams({ entity, records, q })}`;
  let found = known.get(url);
  if (!found) {
    found = fetch(url).then(async (response) =>
      response.ok ? ((await response.json()) as { samples: Sample[] }).samples : [],
    );
    known.set(url, found);
  }
  return found;
}
