// Puts the demo's projects into a running server, each once: what the user deletes stays deleted.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './ready.mjs';

/** The cookie that stands for the access key, where the server wants one. */
let cookie = '';

async function ask(method, url, body) {
  const form = body instanceof FormData;
  const answer = await fetch(url, {
    method,
    body: body === undefined || form ? body : JSON.stringify(body),
    headers: { cookie, ...(body === undefined || form ? {} : { 'content-type': 'application/json' }) },
  });
  cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? cookie;
  const value = await answer.json();
  if (!answer.ok) throw new Error(`${method} ${url}: ${value.error?.message ?? answer.status}`);
  return value;
}

/**
 * Seeds from demo/projects; `data` is the server's data folder, where it is noted what has been seeded. `key` opens a
 * server that wants one.
 */
export async function seed(address, data, key) {
  const note = join(data, 'demo.json');
  const seeded = new Set(existsSync(note) ? JSON.parse(readFileSync(note, 'utf8')) : []);
  const folder = join(ROOT, 'demo', 'projects');
  const files = readdirSync(folder).filter((f) => f.endsWith('.json'));
  if (key !== undefined) await ask('POST', `${address}/api/sign-in`, { key });
  for (const file of files.sort().reverse()) {
    if (seeded.has(file)) continue;
    const { name, picture, art } = JSON.parse(readFileSync(join(folder, file), 'utf8'));
    const api = `${address}/api/projects`;
    const project = await ask('POST', api, { name, sheet: { width: 100, height: 100, unit: 'mm' } });
    const form = new FormData();
    form.set('file', new File([readFileSync(join(ROOT, 'demo', 'pictures', picture))], picture));
    const { picture: added } = await ask('POST', `${api}/${project.id}/pictures`, form);
    const pictures = art.pictures.map((p) => ({ ...p, source: added.id }));
    const { version: _version, ...parts } = { ...art, pictures };
    const changes = [
      Object.entries(parts).map(([key, value]) => ({ op: 'replace', path: `/${key}`, value })),
    ];
    await ask('POST', `${api}/${project.id}/changes`, { base: 0, changes });
    seeded.add(file);
    mkdirSync(data, { recursive: true });
    writeFileSync(note, JSON.stringify([...seeded].sort()));
  }
}
