/** The table of numbers in docs/format.md is made from the declarations. `WRITE_DOCS=1` puts it there anew. */
import { readFileSync, writeFileSync } from 'node:fs';
import { SIZED, SHAPING, blankOf, fieldsOf, type Field } from '@kadrel/core';

const FILE = new URL('../../docs/format.md', import.meta.url);
const [FROM, TO] = ['<!-- fields: from here -->', '<!-- fields: to here -->'];

const UNITS = { length: 'mm', angle: 'degrees', count: '', number: '' } as const;

function rangeOf(field: Field): string {
  if (field.type === 'number' || field.type === 'vector') {
    const { above, least, most, kind } = field;
    const unit = UNITS[kind] ?? '';
    const bounds = [
      ...(above === undefined ? [] : [`more than ${above}`]),
      ...(least === undefined ? [] : [`${least} or more`]),
      ...(most === undefined ? [] : [`at most ${most}`]),
    ];
    return [unit, ...bounds].filter((one) => one !== '').join(', ');
  }
  if (field.type === 'choice')
    return Object.keys(field.choices)
      .map((choice) => `\`${choice}\``)
      .join(', ');
  if (field.type === 'flag') return 'true, false';
  if (field.type === 'numbers') return field.kind === 'length' ? 'list of lengths' : 'list of numbers';
  return field.type === 'text' ? 'text' : `list of ${field.type}`;
}

function table(): string {
  const rows = [
    ...SIZED.map((kind) => [kind, 'Change'] as const),
    ...SHAPING.map((kind) => [kind, ''] as const),
  ];
  const lines = rows.flatMap(([kind, verb]) =>
    fieldsOf(kind.schema).map(
      ([key, field]) =>
        `| \`${kind.kind}\` | \`${key}\` | ${rangeOf(field)} | ${verb === '' ? '' : `\`${blankOf(key, field)}\``} | ${field.about} |`,
    ),
  );
  return ['| kind | field | range | blank | meaning |', '| --- | --- | --- | --- | --- |', ...lines].join(
    '\n',
  );
}

test('the table of numbers is that of the declarations', () => {
  const text = readFileSync(FILE, 'utf8');
  const [before, rest] = text.split(`${FROM}\n`);
  const [now, after] = rest!.split(TO);
  if (process.env.WRITE_DOCS === '1') writeFileSync(FILE, `${before}${FROM}\n\n${table()}\n\n${TO}${after}`);
  else expect(now!.trim()).toBe(table());
});
