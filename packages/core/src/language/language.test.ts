import { labelled, reasonOf, withoutPlace } from './reason.ts';
import { ENGLISH_FAULTS, ENGLISH_REMEDIES, FAULT_GROUPS } from './english/faults/index.ts';
import { ENGLISH, GROUPS } from './english/index.ts';
import { faultFor, faultOf, withRemedy } from './fault.ts';

const codes = Object.keys(ENGLISH) as (keyof typeof ENGLISH)[];

/** Facts that say what they were asked for. */
const marked = (asked: Set<string>) =>
  new Proxy<Record<string, string>>(
    {},
    {
      get: (_, name) => {
        asked.add(String(name));
        return `<${String(name)}>`;
      },
    },
  );

/** What is wrong with the sentence of a code, if anything. */
function unsaid(code: string, sentenceOf: (facts: Record<string, string>) => string): string | undefined {
  const asked = new Set<string>();
  const sentence = sentenceOf(marked(asked));
  if (sentence.trim() === '' || /undefined|\[object/.test(sentence)) return `${code}: ${sentence}`;
  const lost = [...asked].filter((name) => !sentence.includes(`<${name}>`));
  return lost.length > 0 ? `${code} does not say ${lost.join(', ')}` : undefined;
}

test('every code has a sentence in which each of its facts stands', () => {
  expect(codes.length).toBeGreaterThan(300);
  expect(codes.flatMap((code) => unsaid(code, ENGLISH[code] as never) ?? [])).toEqual([]);
});

test('no code stands in two groups', () => {
  const all = GROUPS.flatMap((group) => Object.keys(group));
  expect(all.filter((code, i) => all.indexOf(code) !== i)).toEqual([]);
});

test('a reason holds its code, its facts and its sentence', () =>
  expect(reasonOf('locked', { name: 'Plate' })).toEqual({
    code: 'locked',
    facts: { name: 'Plate' },
    message: 'Plate is locked. Unlock it in Parts first.',
  }));

test('a reason may be of one thing in another, and of no text', () => {
  const reason = { ...reasonOf('missing.where', {}), at: 3 };
  const inner = labelled(reason, 'size wide');
  expect(inner).toMatchObject({ label: 'size wide', message: 'size wide: Say where it goes.', at: 3 });
  expect(labelled(inner, 'Shelf').message).toBe('Shelf, size wide: Say where it goes.');
  expect(withoutPlace(reason)).toEqual(reasonOf('missing.where', {}));
});

const said: Readonly<Record<string, (facts: Record<string, string>) => string>> = {
  ...Object.fromEntries(
    Object.entries(ENGLISH_FAULTS).map(([code, sentences]) => [
      code,
      (facts: Record<string, string>) => (sentences as (facts: object) => readonly string[])(facts).join(' '),
    ]),
  ),
  ...(ENGLISH_REMEDIES as unknown as Record<string, (facts: Record<string, string>) => string>),
};

test('every fault says what is wrong and what to do, with each of its facts, in whole sentences', () => {
  expect(Object.keys(said).length).toBeGreaterThan(120);
  expect(Object.entries(said).flatMap(([code, sentence]) => unsaid(code, sentence) ?? [])).toEqual([]);
  for (const sentences of Object.values(ENGLISH_FAULTS))
    for (const one of (sentences as (facts: object) => readonly string[])(marked(new Set())))
      expect(one).toMatch(/^[A-Z<].*[.>]$/s);
});

test('no code of a fault stands in two groups', () => {
  const all = FAULT_GROUPS.flatMap((group) => Object.keys(group));
  expect(all.filter((code, i) => all.indexOf(code) !== i)).toEqual([]);
});

test('a fault has its sentences, and may be of named things, or know what would do instead', () => {
  const fault = faultOf('body.no-volume', { what: 'The shell' });
  expect(fault).toEqual({
    code: 'body.no-volume',
    facts: { what: 'The shell' },
    reason: 'The shell has no volume.',
    remedy: 'Look for an outline that lies on itself.',
  });
  expect(faultFor(fault, ['Lid', 'Box']).reason).toBe('Lid and Box: The shell has no volume.');
  expect(faultFor(fault, [])).toBe(fault);
  expect(withRemedy(fault, 'largest.radius', { size: '3.5 mm' })).toEqual({
    ...fault,
    facts: { what: 'The shell', size: '3.5 mm' },
    remedy: 'The largest radius that fits here is about 3.5 mm.',
    remedyCode: 'largest.radius',
  });
});
