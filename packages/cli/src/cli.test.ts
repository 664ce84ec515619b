import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { DOCUMENT_VERSION } from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';
import { loadKernel } from '@kadrel/kernel/node';
import { LedgerError, runLedger } from './ledger.ts';
import { main } from './main.ts';

let kernel: Evaluator;
let folder: string;
beforeAll(async () => {
  kernel = await loadKernel();
  folder = mkdtempSync(join(tmpdir(), 'kadrel-cli-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

const command = (...args: string[]) => ran(args);

/** Runs the command line, and returns what it printed and its exit code. */
async function ran(args: readonly string[], onBegun?: Parameters<typeof main>[1]) {
  const printed = { out: '', err: '' };
  const { stdout, stderr } = process;
  const [toOut, toErr] = [stdout.write.bind(stdout), stderr.write.bind(stderr)];
  stdout.write = (text) => ((printed.out += String(text)), true);
  stderr.write = (text) => ((printed.err += String(text)), true);
  try {
    return {
      ...printed,
      code: await main(args, onBegun),
      get out() {
        return printed.out;
      },
      get err() {
        return printed.err;
      },
    };
  } finally {
    stdout.write = toOut;
    stderr.write = toErr;
  }
}

const file = (name: string, content: unknown) => {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
};
const ledger = (...statements: object[]) => ({ kadrel: 1, ledger: statements });
const plate = { verb: 'box', as: 'plate', size: ['100', '60', '8'], at: ['0', '0', '0'] };
const drill = { verb: 'cylinder', as: 'drill', diameter: '8 + gap', height: '20', at: ['15', '15', '-5'] };
const bracket = {
  kadrel: 1,
  units: { length: 'mm' },
  variables: { gap: '0.2 mm' },
  ledger: [
    plate,
    drill,
    { verb: 'subtract', as: 'bracket', from: 'plate', parts: ['drill'] },
    { verb: 'move', parts: ['bracket'], by: ['0', '0', '1/2 in'] },
  ],
};
const fault = (json: unknown): string => {
  try {
    runLedger(json, kernel);
  } catch (error) {
    if (error instanceof LedgerError) return error.message;
    throw error;
  }
  return '';
};

describe('run', () => {
  test('measures every visible part as JSON, and nothing else on standard output', async () => {
    const { out, err, code } = await command('run', file('bracket.json', bracket), '--measure');
    expect([code, err]).toEqual([0, '']);
    const { parts } = JSON.parse(out) as { parts: Record<string, { volume: number; box: object }> };
    expect(Object.keys(parts)).toEqual(['bracket']);
    expect(parts.bracket).toMatchObject({
      box: { min: [0, 0, 12.7], max: [100, 60, 20.7] },
      watertight: true,
      faces: 7,
      solids: 1,
      faceted: false,
    });
    expect(Math.abs(parts.bracket!.volume / (48000 - 8 * Math.PI * 4.1 ** 2) - 1)).toBeLessThan(1e-12);
  });
  test('writes STEP, STL and JSON by the name of the file', async () => {
    const [step, stl, json] = ['a.step', 'a.stl', 'a.json'].map((name) => join(folder, name)) as [
      string,
      string,
      string,
    ];
    expect(
      (await command('run', file('b.json', bracket), '--output', step, '--output', stl, '--output', json))
        .code,
    ).toBe(0);
    expect(readFileSync(step, 'utf8')).toMatch(/^ISO-10303-21;/);
    expect(readFileSync(stl).readUInt32LE(80)).toBeGreaterThan(50);
    expect(JSON.parse(readFileSync(json, 'utf8'))).toMatchObject({
      kadrel: DOCUMENT_VERSION,
      variables: { gap: '0.2 mm' },
    });
  });
  test('fit tells how parts stand to one another, and ends with 2 where something is wrong', async () => {
    const column = (gap: number) =>
      file('column.json', {
        kadrel: 1,
        ledger: [
          { verb: 'cylinder', as: 'foot', diameter: 20, height: 10 },
          { verb: 'cylinder', as: 'post', diameter: 20, height: 10, at: [0, 0, 10 + gap] },
          { verb: 'measure', from: 'foot', to: 'post', greatest: '0.001', called: 'joint' },
        ],
      });
    const loose = await command('fit', column(0.01));
    expect(loose.code).toBe(2);
    const { faults, findings } = JSON.parse(loose.out) as {
      faults: number;
      findings: { kind: string; what: string; words: string; size: number }[];
    };
    expect(faults).toBe(2);
    expect(findings.map(({ kind, what }) => [kind, what])).toEqual([
      ['floating', 'post'],
      ['measure', 'joint'],
      ['clearance', 'foot and post'],
    ]);
    expect(findings[0]!.words).toBe('Nothing carries it: it would fall 0.01 mm onto foot.');
    const tight = await command('fit', column(0), '--part', 'post', '--reach', '1');
    expect(tight.code).toBe(0);
    expect(JSON.parse(tight.out)).toMatchObject({
      faults: 0,
      findings: [{ kind: 'contact' }, { kind: 'measure' }],
    });
    const table = join(dirname(column(0)), 'report.csv');
    expect((await command('fit', column(0.01), '--output', table)).code).toBe(2);
    expect(readFileSync(table, 'utf8').split('\r\n')[1]).toMatch(/^Floating,fault,"post"/);
    expect((await command('fit', column(0), '--output', 'report.txt')).err).toContain('.csv or .pdf');
    expect((await command('fit', column(0), '--reach', 'far')).err).toContain('--reach takes millimetres');
  });
  const demo = (name: string) =>
    JSON.parse(
      readFileSync(join(import.meta.dirname, `../../../apps/server/src/demo/${name}.json`), 'utf8'),
    ) as { ledger: object[] };
  // Some forty solids take a busy machine its time.
  const PATIENCE_MS = 240_000;
  test.each(['orchard-hive', 'tram-shelter', 'marble-run'])(
    'the parts of the demo %s go together',
    async (name) => {
      expect((await command('fit', file('demo.json', demo(name)))).code).toBe(0);
    },
    PATIENCE_MS,
  );
  test(
    'the faults of the hive with faults are found, and no others',
    async () => {
      const hive = demo('orchard-hive');
      const faulty = { ...hive, ledger: [...hive.ledger, ...demo('faults').ledger] };
      const { out } = await command('fit', file('demo.json', faulty));
      const { findings } = JSON.parse(out) as { findings: { kind: string; state: string; what: string }[] };
      const faults = findings.filter(({ state }) => state === 'fault');
      expect(faults.map(({ kind, what }) => `${kind} ${what}`).sort()).toEqual([
        'below Third brick',
        'double Brick and Second brick',
        'floating Roof',
        'measure Room for a hand',
        'overlap Brick and Feeder',
        'overlap Second brick and Feeder',
      ]);
    },
    PATIENCE_MS,
  );
  test('make tells whether parts can be made, by limits of one’s own', async () => {
    const tube = file('tube.json', {
      kadrel: 1,
      ledger: [{ verb: 'tube', as: 'pipe', diameter: 20, bore: 18.6, height: 30 }],
    });
    const thin = await command('make', tube, '--material', 'steel', '--bed', '50,50,20');
    expect(thin.code).toBe(2);
    const { findings } = JSON.parse(thin.out) as {
      findings: { kind: string; state: string; words: string }[];
    };
    const byKind = new Map(findings.map((one) => [one.kind, one]));
    expect(byKind.get('wall')).toMatchObject({ state: 'fault' });
    expect(byKind.get('wall')!.words).toMatch(/^Its thinnest wall is 0\.7 mm, .* 0\.8 mm is wanted\.$/);
    expect(byKind.get('bed')).toMatchObject({ state: 'fault' });
    expect(byKind.get('mass')!.words).toContain('Steel');
    const fine = await command('make', tube, '--wall', '0.7', '--part', 'pipe');
    expect(fine.code).toBe(0);
    expect((await command('make', tube, '--bed', '20')).err).toContain('--bed takes three lengths');
    expect((await command('make', tube, '--material', 'cheese')).err).toContain('--material takes one of');
  });
  test('profiles are listed beside the parts, come in from files, and go out to files', async () => {
    file(
      'leaf.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10"><rect width="20" height="10"/></svg>',
    );
    const path = file(
      'leaf.json',
      ledger(
        { verb: 'bring', as: 'leaf', drawing: { file: 'leaf.svg' } },
        {
          verb: 'traverse',
          as: 'open',
          legs: [
            ['30', '0'],
            ['0', '40'],
          ],
        },
        { verb: 'raise', as: 'plate', profiles: ['leaf'], height: 3 },
      ),
    );
    const [svg, dxf] = [join(folder, 'out.svg'), join(folder, 'out.dxf')];
    const { out, code } = await command('run', path, '--measure', '--output', svg, '--output', dxf);
    expect(code).toBe(0);
    const measured = JSON.parse(out) as { parts: object; profiles: object };
    expect(Object.keys(measured.parts)).toEqual(['plate']);
    expect(measured.profiles).toMatchObject({
      leaf: { area: 200, length: 60, closed: true },
      open: { area: 0, length: 70, closed: false, error: { length: 50, x: 30, y: 40 } },
    });
    expect(readFileSync(svg, 'utf8')).toContain('width="30mm"');
    expect(readFileSync(dxf, 'utf8')).toContain('AcDbLine');
    const missing = file('none.json', ledger({ verb: 'bring', drawing: { file: 'none.svg' } }));
    expect((await command('run', missing)).err).toContain('none.svg cannot be read');
  });
  test('warns of keys that mean nothing, and goes on', async () => {
    const { err, code } = await command(
      'run',
      file('c.json', ledger({ ...plate, colour: 'red' })),
      '--measure',
    );
    expect([code, err]).toEqual([
      0,
      'Warning: Statement 1 (box): “colour” means nothing here and is left out.\n',
    ]);
  });
  test('ends with 1 and names statement, verb and blank', async () => {
    const { out, err, code } = await command(
      'run',
      file('d.json', ledger(plate, { ...drill, diameter: '8 +' })),
      '--measure',
    );
    expect([code, out]).toEqual([1, '']);
    expect(err).toBe(
      'Statement 2 (cylinder), blank “diameter”, character 4: Something is missing at the end.\n',
    );
  });
  test.each([
    ['no file', join('nowhere', 'x.json'), 'cannot be read'],
    ['no JSON', '{', 'is not JSON'],
    ['no ledger', '{}', 'must say "kadrel": 1'],
  ])('%s is a fault that says so', async (_, content, sentence) => {
    const { err, code } = await command('run', content.startsWith('{') ? file('e.json', content) : content);
    expect(code).toBe(1);
    expect(err).toContain(sentence);
  });
  test('verbs --json lists blanks, types and defaults', async () => {
    const { out } = await command('verbs', '--json');
    const { verbs } = JSON.parse(out) as {
      verbs: { verb: string; blanks: { blank: string; type: string; default?: unknown }[] }[];
    };
    expect(verbs.map(({ verb }) => verb)).toEqual(
      expect.arrayContaining([
        'box',
        'cylinder',
        'move',
        'union',
        'subtract',
        'intersect',
        'duplicate',
        'delete',
        'rename',
        'change',
      ]),
    );
    expect(verbs.find(({ verb }) => verb === 'move')!.blanks).toContainEqual(
      expect.objectContaining({ blank: 'by', type: 'vector', default: ['0', '0', '0'] }),
    );
  });
});

describe('a ledger', () => {
  const box = (json: unknown, name: string) => {
    const { document } = runLedger(json, kernel);
    return kernel.measure(document, Object.values(document.items).find((item) => item.name === name)!.id).box;
  };
  test('takes points by the names of faces', () => {
    const moved = (from: object, to: object) =>
      ledger(plate, { ...drill, diameter: 8 }, { verb: 'move', parts: ['drill'], from, to });
    expect(
      box(
        moved({ on: 'drill', at: 'bottom', snap: 'centre' }, { on: 'plate', at: 'top&front&right' }),
        'drill',
      ).min,
    ).toEqual([96, -4, 8]);
    expect(
      box(
        moved(
          { on: 'drill', at: 'bottom&side', snap: 'centre' },
          { on: 'plate', at: 'top&front', snap: 'midpoint' },
        ),
        'drill',
      ).min,
    ).toEqual([46, -4, 8]);
    expect(
      box(moved({ on: 'drill', at: 'bottom' }, { on: 'plate', at: 'top', snap: 'centre' }), 'drill').min,
    ).toEqual([46, 26, 8]);
  });
  test('takes plain numbers in scene units', () => {
    expect(
      box(
        { kadrel: 1, units: { length: 'in' }, ledger: [{ verb: 'box', as: 'b', size: [1, 2, '3 mm'] }] },
        'b',
      ).max,
    ).toEqual([25.4, 50.8, 3]);
  });
  test.each([
    [ledger({ verb: 'fly' }), 'Statement 1 (fly): there is no verb “fly”.'],
    [
      ledger(plate, { verb: 'move', parts: ['lid'] }),
      'Statement 2 (move), blank “parts”: There is no part named lid.',
    ],
    [
      ledger({ ...plate, size: ['1', '2'] }),
      'Statement 1 (box), blank “size”: Three numbers belong here, for X, Y and Z.',
    ],
    [
      ledger({ ...plate, size: ['1', '2', '-3'] }),
      'Statement 1 (box), blank “size”: Z: Size must be more than zero.',
    ],
    [
      ledger({ verb: 'box' }),
      'Statement 1 (box), blank “size”: Still empty: length, width and height along X, Y and Z.',
    ],
    [
      ledger(plate, { verb: 'move', parts: ['plate'], from: { on: 'plate', at: 'roof' }, to: [0, 0, 0] }),
      'Statement 2 (move), blank “from”: There is no face centre at roof of plate.',
    ],
    [
      { kadrel: 1, variables: { a: 'b', b: 'a' }, ledger: [] },
      'Variable “a”: These variables refer to one another in a circle: a → b → a.',
    ],
    [{ kadrel: 2, ledger: [] }, 'This is not a Kadrel ledger file: it must say "kadrel": 1.'],
  ])('is refused with a sentence (%#)', (json, sentence) => expect(fault(json)).toBe(sentence));
  test('whose parts cannot be built is refused at the statement', () => {
    const apart = ledger(
      plate,
      { ...plate, as: 'far', at: [500, 0, 0] },
      { verb: 'intersect', as: 'i', parts: ['plate', 'far'] },
    );
    expect(fault(apart)).toContain('Statement 3 (intersect), blank “parts”: i: The parts do not meet');
  });
});

test('a step that a later statement makes impossible is reported, with its place, and the ledger goes on', () => {
  const { document, warnings } = runLedger(
    ledger(
      { verb: 'box', as: 'block', size: ['20', '20', '20'] },
      { verb: 'fillet', part: 'block', edges: ['front&right'], radius: '8' },
      { verb: 'change', parts: ['block'], size: ['5', '5', '20'] },
      { verb: 'box', as: 'other', size: ['1', '1', '1'] },
    ),
    kernel,
  );
  expect(Object.values(document.items).map(({ name }) => name)).toEqual(['block', 'other']);
  expect(warnings).toEqual([
    expect.stringMatching(/^Statement 3 .*block: step 1 can no longer be done\. .* Place: \(.*\) mm\.$/),
  ]);
});

test('a sheet as a picture has the pixels that its paper and the resolution say', async () => {
  const path = file('sheet.json', ledger(plate, { verb: 'sheet', as: 'S', paper: 'a4', views: 'plan' }));
  const picture = join(folder, 'sheet.png');
  // Source of the places of width and height: W3C, PNG, the header chunk.
  const size = () => [16, 20].map((at) => readFileSync(picture).readUInt32BE(at));
  expect((await command('run', path, '--sheet', 'S', '--output', picture)).code).toBe(0);
  expect(size()).toEqual([297, 210].map((mm) => Math.round((mm / 25.4) * 300)));
  expect((await command('run', path, '--sheet', 'S', '--dpi', '72', '--output', picture)).code).toBe(0);
  expect(size()).toEqual([842, 595]);
  const { code, err } = await command('run', path, '--sheet', 'S', '--dpi', '0', '--output', picture);
  expect(code).toBe(1);
  expect(err).toContain('--dpi takes pixels in an inch');
  const large = await command('run', path, '--sheet', 'S', '--dpi', '4800', '--output', picture);
  expect(large.err).toContain('Say fewer with --dpi');
});

test('a statement over which the kernel stops is named, with what to do, and nothing is printed', async () => {
  const stops = (begun: { readonly work: string }) => {
    if (begun.work.startsWith('Statement 2')) throw new WebAssembly.RuntimeError('null function');
  };
  const path = file('stops.json', ledger(plate, { ...plate, as: 'lid' }));
  const { code, out, err } = await ran(['run', path, '--measure'], stops);
  expect([code, out]).toEqual([1, '']);
  expect(err).toBe(
    'Statement 2 (box): the kernel stopped over it; nothing more was written. Change one of its sizes or places a little, or leave it out.\n',
  );
});
