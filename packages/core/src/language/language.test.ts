import { reasonOf } from './reason.ts';
import { ENGLISH, GROUPS } from './english/index.ts';

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
function faultOf(code: keyof typeof ENGLISH): string | undefined {
  const asked = new Set<string>();
  const sentence = (ENGLISH[code] as (facts: Record<string, string>) => string)(marked(asked));
  if (sentence.trim() === '' || /undefined|\[object/.test(sentence)) return `${code}: ${sentence}`;
  const lost = [...asked].filter((name) => !sentence.includes(`<${name}>`));
  return lost.length > 0 ? `${code} does not say ${lost.join(', ')}` : undefined;
}

test('every code has a sentence in which each of its facts stands', () => {
  expect(codes.length).toBeGreaterThan(300);
  expect(codes.flatMap((code) => faultOf(code) ?? [])).toEqual([]);
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
