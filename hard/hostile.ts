import { readArt, seeded } from '@mirrot/core';
import sharp from 'sharp';
import { ask, bare, blob, finding, getArt, makeProject, newFolder, post, removeFolder, shape, start, type Answer, type Finding } from './harness'; // prettier-ignore

type Input = readonly [kind: string, send: (address: string, project: string) => Promise<Answer | null>];

const patches =
  (...list: object[]): Input[1] =>
  async (address, project) => {
    const { revision } = await getArt(address, project);
    return post(address, `/api/projects/${project}/changes`, { base: revision, changes: [list] });
  };

/** Groups in each other, as JSON text: too deep for whoever writes JSON by calling itself. */
function nested(deep: number): Input[1] {
  const open = Array.from({ length: deep }, (_, i) => `{"id":"g${i}","type":"group","name":"g","shown":true,"locked":false,"opacity":1,"children":[`); // prettier-ignore
  const value = `${open.join('')}${JSON.stringify(shape('deep', 0, 0))}${']}'.repeat(deep)}`;
  return async (address, project) => {
    const { revision } = await getArt(address, project);
    return post(address, `/api/projects/${project}/changes`, `{"base":${revision},"changes":[[{"op":"add","path":"/layers/0/children/0","value":${value}}]]}`); // prettier-ignore
  };
}

const upload =
  (bytes: BlobPart, name = 'a.png'): Input[1] =>
  (address, project) => {
    const form = new FormData();
    form.set('file', new File([bytes], name));
    return ask(address, `/api/projects/${project}/pictures`, { method: 'POST', body: form });
  };

const get =
  (path: string, init: RequestInit = {}): Input[1] =>
  (address, project) =>
    ask(address, path.replace(':p', project), init);

/** An SVG that takes very long to draw. */
export const SLOW_SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="2000"><filter id="f" x="0" y="0" width="1" height="1"><feMorphology operator="dilate" radius="400"/></filter><rect width="2000" height="2000" filter="url(#f)"/></svg>';

const BILLION_LAUGHS = `<?xml version="1.0"?><!DOCTYPE s [<!ENTITY a "${'ha'.repeat(50)}">${Array.from({ length: 12 }, (_, i) => `<!ENTITY ${'bcdefghijklm'[i]} "${`&${'abcdefghijkl'[i]};`.repeat(20)}">`).join('')}]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&m;</text></svg>`;

/** Inputs of every kind that once did harm, or might. */
function fixedInputs(): Input[] {
  const layer = '/layers/0/children';
  return [
    ['length', patches({ op: 'replace', path: `${layer}/length`, value: 4294967295 })],
    ['far index', patches({ op: 'add', path: `${layer}/30000000`, value: shape('x', 0, 0) })],
    ['version', patches({ op: 'replace', path: '/version', value: 1 })],
    ['version gone', patches({ op: 'remove', path: '/version' })],
    ['whole document', patches({ op: 'replace', path: '', value: bare })],
    ['remove nothing', patches({ op: 'remove', path: `${layer}/99` })],
    ['prototype', patches({ op: 'add', path: '/__proto__/x', value: 1 })],
    ['constructor', patches({ op: 'add', path: '/layers/constructor/x', value: 1 })],
    ['nested groups', nested(3000)],
    ['nested just too deep', nested(65)],
    ['many patches', patches(...Array.from({ length: 2001 }, (_, i) => ({ op: 'replace', path: '/sheet/ppi', value: 1 + i })))], // prettier-ignore
    ['5,462 changes', async (address, project) => {
      const { revision } = await getArt(address, project);
      return post(address, `/api/projects/${project}/changes`, { base: revision, changes: Array.from({ length: 5462 }, () => []) }); // prettier-ignore
    }],
    ['too many shapes', patches(...Array.from({ length: 4 }, (_, k) => ({ op: 'add', path: `${layer}/0`, value: { id: `many${k}`, type: 'group', name: 'g', shown: true, locked: false, opacity: 1, children: Array.from({ length: 5500 }, (_, i) => ({ ...shape(`m${k}-${i}`, 0, 0), paths: [{ id: `m${k}-${i}p`, closed: false, anchors: [blob('', 0, 0, 1).anchors[0]] }] })) } })))], // prettier-ignore
    ['turned anchors', patches({ op: 'add', path: `${layer}/0`, value: { ...shape('turned', 0, 0), paths: [blob('tp', 0, 0, 40_000)], axis: { kind: 'turn', x: 0, y: 0, parts: 60 } } })], // prettier-ignore
    ['half a character', patches({ op: 'replace', path: '/layers/0/name', value: 'x\ud83c' })],
    ['U+FFFF', patches({ op: 'replace', path: '/layers/0/name', value: 'x\uffff' })],
    ['sheet of 1e-300', patches({ op: 'replace', path: '/sheet/width', value: 1e-300 })],
    ['coordinate 1e300', patches({ op: 'add', path: `${layer}/0`, value: shape('far', 1e300, 0) })],
    ['picture of nobody', patches({ op: 'add', path: '/pictures/0', value: { id: 'x', source: 'x' } })],
    ['project of 1e-300', (address) => post(address, '/api/projects', { name: 'x', sheet: { width: 1e-300, height: 1, unit: 'px' } })], // prettier-ignore
    ['project of 1e9', (address) => post(address, '/api/projects', { name: 'x', sheet: { width: 1e9, height: 1, unit: 'mm' } })], // prettier-ignore
    ['name with half a pair', (address) => post(address, '/api/projects', `{"name":"${'x'.repeat(79)}\\ud83c","sheet":{"width":1,"height":1,"unit":"px"}}`)], // prettier-ignore
    ['60 MB of [', (address, project) => post(address, `/api/projects/${project}/changes`, '['.repeat(60e6))],
    ['7 MB of [', (address, project) => post(address, `/api/projects/${project}/changes`, '['.repeat(7e6))],
    ['JSON as text', (address, project) => ask(address, `/api/projects/${project}/changes`, { method: 'POST', body: '{}', headers: { 'content-type': 'text/plain' } })], // prettier-ignore
    ['no JSON', (address) => post(address, '/api/projects', '{"name":')],
    ['no UTF-8', (address) => ask(address, '/api/projects', { method: 'POST', body: new Uint8Array([0x22, 0xff, 0x22]), headers: { 'content-type': 'application/json' } })], // prettier-ignore
    ['export.constructor', get('/api/projects/:p/export.constructor')],
    ['export.__proto__', get('/api/projects/:p/export.__proto__')],
    ['%ff', get('/api/projects/%ff')],
    ['%ff deeper', get('/api/pictures/%c0%ae%ff')],
    ['wrong method', get('/api/projects/:p/art', { method: 'DELETE' })],
    ['no such address', get('/api/nothing/here')],
    ['export of 1e9 ppi', get('/api/projects/:p/export.png?ppi=1e9')],
    ['export 40,000 wide', get('/api/projects/:p/export.png?width=40000')],
    ['export too long', (address, project) => patches({ op: 'replace', path: '/sheet/width', value: 60_000 }, { op: 'replace', path: '/sheet/height', value: 10 })(address, project).then(() => ask(address, `/api/projects/${project}/export.png?ppi=96`))], // prettier-ignore
    ['sheet back', patches({ op: 'replace', path: '/sheet/width', value: 800 }, { op: 'replace', path: '/sheet/height', value: 600 })], // prettier-ignore
    ['other site', get('/api/projects', { headers: { 'sec-fetch-site': 'cross-site' } })],
    ['other origin', get('/api/projects', { headers: { origin: 'http://evil.example' } })],
    ['slow SVG', upload(SLOW_SVG, 'slow.svg')],
    ['billion laughs', upload(BILLION_LAUGHS, 'laughs.svg')],
    ['huge SVG', upload('<svg xmlns="http://www.w3.org/2000/svg" width="1e9" height="1e9"/>', 'huge.svg')],
    ['empty file', upload('', 'empty.png')],
    ['no picture', upload('%PDF-1.7 not really', 'a.pdf')],
  ]; // prettier-ignore
}

/** Random harm: patches at random places with random values, requests of random JSON, pictures cut and flipped. */
function randomInput(random: () => number, png: Buffer): Input {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const value = (deep = 0): unknown => {
    const r = random();
    if (r < 0.3 || deep > 4)
      return pick([null, true, 0, -1, 1e300, NaN, '', 'x'.repeat(600), '\udc00', {}, []]);
    if (r < 0.5) return random() * 1e7 - 5e6;
    if (r < 0.7) return Array.from({ length: Math.floor(random() * 5) }, () => value(deep + 1));
    if (r < 0.8) return shape(`r${Math.floor(random() * 1e9)}`, random() * 100, 0);
    return Object.fromEntries(Array.from({ length: 3 }, () => [pick(['id', 'name', 'type', 'x', 'paths', 'children', '__proto__']), value(deep + 1)])); // prettier-ignore
  };
  const names = ['layers', 'children', 'paths', 'anchors', '0', '1', '-', '-1', '4294967295', 'x', 'in', 'sheet', 'length', 'pictures', 'chips', 'guides', 'grid', 'axis', '__proto__', 'constructor', 'name', 'id', 'version', '~', '~1', '']; // prettier-ignore
  const kind = random();
  if (kind < 0.75) {
    const list = Array.from({ length: 1 + Math.floor(random() * 4) }, () => ({
      op: pick(['add', 'replace', 'remove', 'move', 'test']),
      path: random() < 0.05 ? pick(['', 'layers', '//']) : `/${pick(['layers', 'sheet', 'pictures', 'chips', 'guides', pick(names)])}${Array.from({ length: Math.floor(random() * 6) }, () => `/${pick(names)}`).join('')}`, // prettier-ignore
      ...(random() < 0.9 ? { value: value() } : {}),
    }));
    return ['random patches', patches(...list)];
  }
  if (kind < 0.9)
    return ['random request', (address, project) => post(address, pick(['/api/projects', `/api/projects/${project}/changes`, `/api/projects/${project}/copies`, `/api/projects/${project}`, '/api/sign-in']), { ...(value() as object), base: pick([0, -1, 1e308, '0']), changes: value(), name: value(), sheet: value() })]; // prettier-ignore
  const bytes = new Uint8Array(png.subarray(0, Math.floor(png.length * random())));
  for (let k = 0; k < 4 && bytes.length > 0; k++) bytes[Math.floor(random() * bytes.length)] = random() * 256;
  return ['spoilt picture', upload(bytes)];
}

/**
 * Sends what may do harm: each has to get a sentence and a status that says whose fault it is, or be taken as what it
 * is; the server has to stay up, quick, and its drawing a drawing.
 */
export async function hostileInputs(count: number, fixed = true): Promise<Finding[]> {
  const random = seeded(count);
  const data = newFolder();
  const server = await start(data);
  const project = await makeProject(server.address);
  await patches({ op: 'add', path: '/layers/0/children/0', value: shape('s', 100, 100) })(
    server.address,
    project,
  );
  const png = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#d4561c' } }).png().toBuffer(); // prettier-ignore
  const inputs: Input[] = [...(fixed ? fixedInputs() : [])];
  while (inputs.length < count) inputs.push(randomInput(random, png));
  const faults: string[] = [];
  let slowest = 0;
  for (const [kind, send] of inputs) {
    const began = Date.now();
    // Others are served meanwhile.
    let waited = 0;
    const answering = send(server.address, project);
    let answered = false;
    void answering.finally(() => (answered = true));
    while (!answered) {
      const asked = Date.now();
      const health = await ask(server.address, '/api/health');
      waited = Math.max(waited, Date.now() - asked);
      if (health?.status !== 200) faults.push(`${kind}: health answered ${health?.status}`);
      if (!answered) await new Promise((done) => setTimeout(done, 20));
      if (Date.now() - began > 60_000) break;
    }
    slowest = Math.max(slowest, waited);
    const answer = await answering;
    if (!answer) {
      faults.push(`${kind}: no answer`);
      continue;
    }
    if (answer.status >= 500) faults.push(`${kind}: ${answer.status} ${answer.text.slice(0, 120)}`);
    if (answer.status >= 400) {
      const error = answer.type.startsWith('application/json') && (answer.json() as { error?: { message?: string } }).error; // prettier-ignore
      if (!error || !/[.!?]$/.test(error.message ?? ''))
        faults.push(`${kind}: ${answer.status} without a sentence`);
    }
  }
  let drawing = 'a drawing';
  try {
    readArt((await getArt(server.address, project)).art);
    const svg = await ask(server.address, `/api/projects/${project}/export.svg`);
    if (svg?.status !== 200) drawing = `no SVG: ${svg?.status}`;
  } catch (error) {
    drawing = String(error);
  }
  await server.stop();
  removeFolder(data);
  return [
    finding(`Hostile inputs (${inputs.length}): faults`, faults.length === 0 ? 0 : `${faults.length}: ${faults.slice(0, 6).join(' | ')}`, '0', faults.length === 0), // prettier-ignore
    finding('… longest that others waited, ms', slowest, '≤ 1500', slowest <= 1500),
    finding('… the drawing after them', drawing, 'a drawing', drawing === 'a drawing'),
  ];
}
