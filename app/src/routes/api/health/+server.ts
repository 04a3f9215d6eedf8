import { json } from '@sveltejs/kit';
import { sql } from 'kysely';
import { route } from '$lib/server/answer';
import { version } from '../../../../package.json';

export const GET = route(async (_event, db) => {
  await sql`select 1`.execute(db);
  return json({ ok: true, version, database: 'ready' });
});
