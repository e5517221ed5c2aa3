import { sql } from 'drizzle-orm';
import { database } from '@/server/database/client';

/** Whether the server and its database answer. */
export async function GET(): Promise<Response> {
  const healthy = await database()
    .execute(sql`select 1`)
    .then(
      () => true,
      () => false,
    );
  return Response.json(
    { healthy },
    { status: healthy ? 200 : 503, headers: { 'Cache-Control': 'no-store' } },
  );
}
