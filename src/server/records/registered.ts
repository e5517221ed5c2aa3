import { sql, type SQL } from 'drizzle-orm';

/**
 * How PostgreSQL works out the conditions that code registers (`src/core/condition/registered.ts`). Each
 * must give what `decide` gives there, and null where a value is missing; it must not throw.
 */
const REGISTERED_SQL: Readonly<Record<string, (values: readonly SQL[]) => SQL>> = {
  same_month: ([a, b]) => sql`(substr(${a}, 6, 2) = substr(${b}, 6, 2))`,
};

export function registeredSql(name: string, values: readonly SQL[]): SQL {
  return REGISTERED_SQL[name]?.(values) ?? sql`null::boolean`;
}
