import { fileName } from '$lib/file-name';
import { checked, route } from '$lib/server/answer';
import { growthOf } from '$lib/server/growing';
import { getProject } from '$lib/server/projects';
import { Refusal } from '$lib/server/refusal';
import { replayQuery } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params, url }: RequestEvent, db) => {
  const kind = params.format === 'webp' || params.format === 'gif' ? params.format : null;
  if (!kind) throw new Refusal(404, 'no-format', 'A replay is written as WebP or GIF.');
  const { width, seconds, picture } = checked(replayQuery, Object.fromEntries(url.searchParams));
  const { name } = await getProject(db, params.id);
  const bytes = await growthOf(db, params.id, { kind, width, seconds, picture: picture === '1' });
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': `image/${kind}`,
      'content-disposition': `inline; filename="replay.${kind}"; filename*=UTF-8''${encodeURIComponent(fileName(`${name} replay`, kind))}`,
    },
  });
});
