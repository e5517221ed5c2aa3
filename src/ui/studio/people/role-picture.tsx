'use client';

import type { Role } from '@/core/model';

const [WIDTH, HEIGHT, GAP_X, GAP_Y] = [148, 30, 36, 10];

/** What includes what: each role stands to the right of all that it includes. */
export function RolePicture({
  roles,
  chosen,
  onChoose,
}: {
  roles: readonly Role[];
  chosen: string | undefined;
  onChoose: (id: string) => void;
}) {
  const byId = new Map(roles.map((role) => [role.id, role]));
  const depths = new Map<string, number>();
  const depthOf = (role: Role): number => {
    const known = depths.get(role.id);
    if (known !== undefined) return known;
    const below = role.includes.flatMap((id) => byId.get(id) ?? []);
    const depth = below.length === 0 ? 0 : 1 + Math.max(...below.map(depthOf));
    depths.set(role.id, depth);
    return depth;
  };
  // A ladder of roles stays in one row: a role stands in the row of the first that it includes, if that is free.
  const taken = new Set<string>();
  const places = new Map<string, { x: number; y: number }>();
  for (const role of [...roles].sort((a, b) => depthOf(a) - depthOf(b))) {
    const column = depthOf(role);
    let row = places.get(role.includes[0] ?? '')?.y ?? 0;
    while (taken.has(`${column} ${row}`)) row++;
    taken.add(`${column} ${row}`);
    places.set(role.id, { x: column, y: row });
  }
  const columns = Math.max(0, ...[...places.values()].map((one) => one.x)) + 1;
  const rows = Math.max(0, ...[...places.values()].map((one) => one.y)) + 1;
  // Roles that include nothing and are in nothing take the free places to the right, so that little is empty.
  const alone = roles.filter(
    (role) => role.includes.length === 0 && !roles.some((one) => one.includes.includes(role.id)),
  );
  const ladder = roles.filter((role) => !alone.includes(role));
  const ladderRows = Math.max(0, ...ladder.map((role) => (places.get(role.id)?.y ?? 0) + 1));
  const wide = Math.max(columns, 5);
  alone.forEach((role, n) => places.set(role.id, { x: n % wide, y: ladderRows + Math.floor(n / wide) }));
  const height = Math.max(ladderRows + Math.ceil(alone.length / wide), Math.min(rows, 1)) * (HEIGHT + GAP_Y);
  const at = (id: string): { x: number; y: number } => {
    const place = places.get(id) ?? { x: 0, y: 0 };
    return { x: place.x * (WIDTH + GAP_X), y: place.y * (HEIGHT + GAP_Y) };
  };
  return (
    <div className="relative overflow-x-auto" style={{ height: height + 4 }}>
      <svg width={wide * (WIDTH + GAP_X)} height={height} className="absolute top-0 left-0" aria-hidden>
        {roles.flatMap((role) =>
          role.includes.map((id) => {
            const [from, to] = [at(id), at(role.id)];
            const [x1, y1, x2, y2] = [from.x + WIDTH, from.y + HEIGHT / 2 + 1, to.x, to.y + HEIGHT / 2 + 1];
            return (
              <path
                key={`${role.id} ${id}`}
                d={`M${x1} ${y1}C${x1 + 20} ${y1} ${x2 - 20} ${y2} ${x2} ${y2}`}
                fill="none"
                stroke="var(--color-edge)"
                strokeWidth={1.5}
              />
            );
          }),
        )}
      </svg>
      {roles.map((role) => {
        const includes = role.includes.map((id) => byId.get(id)?.name ?? 'a deleted role');
        const { x, y } = at(role.id);
        return (
          <button
            key={role.id}
            type="button"
            aria-pressed={role.id === chosen}
            aria-label={`${role.name}${includes.length > 0 ? `, includes ${includes.join(', ')}` : ''}`}
            className="absolute truncate rounded-sm border border-edge bg-paper px-2 text-left hover:border-ink aria-pressed:border-open aria-pressed:bg-open-soft aria-pressed:font-semibold"
            style={{ left: x, top: y + 1, width: WIDTH, height: HEIGHT }}
            onClick={() => onChoose(role.id)}
          >
            {role.name}
          </button>
        );
      })}
    </div>
  );
}
