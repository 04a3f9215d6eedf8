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
 * The changes by which a drawing grows out of nothing: first the sheet and what lies on it, then each shape anchor by anchor,
 * closed, and painted; groups as they are. So the demo has something to replay.
 */
function growth(art) {
  const { version: _version, layers, ...parts } = art;
  const set = (path, value) => ({ op: 'replace', path, value });
  const bare = layers.map((layer) => ({ ...layer, children: [] }));
  const changes = [
    [...Object.entries(parts).map(([key, value]) => set(`/${key}`, value)), set('/layers', bare)],
  ];
  layers.forEach((layer, l) =>
    layer.children.forEach((node, n) => {
      const place = `/layers/${l}/children/${n}`;
      const [path, ...others] = node.paths ?? [];
      if (node.type !== 'shape' || node.axis || node.lettering || node.poured || path.anchors.length < 2) {
        changes.push([{ op: 'add', path: place, value: node }]);
        return;
      }
      const { form: _form, ...plain } = path;
      const begun = { ...plain, closed: false, anchors: path.anchors.slice(0, 1) };
      changes.push([
        { op: 'add', path: place, value: { ...node, fill: null, stroke: null, paths: [begun] } },
      ]);
      path.anchors
        .slice(1)
        .forEach((anchor) =>
          changes.push([{ op: 'add', path: `${place}/paths/0/anchors/-`, value: anchor }]),
        );
      changes.push([set(`${place}/paths/0`, path)]);
      for (const other of others) changes.push([{ op: 'add', path: `${place}/paths/-`, value: other }]);
      if (node.fill || node.stroke)
        changes.push([set(`${place}/fill`, node.fill), set(`${place}/stroke`, node.stroke)]);
    }),
  );
  return changes;
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
    const changes = growth({ ...art, pictures });
    await ask('POST', `${api}/${project.id}/changes`, { base: 0, changes });
    seeded.add(file);
    mkdirSync(data, { recursive: true });
    writeFileSync(note, JSON.stringify([...seeded].sort()));
  }
}
