import type { PlainExporter } from './declare.ts';

/** The document itself. */
export const json: PlainExporter = {
  format: 'json',
  name: 'Kadrel JSON',
  about: 'The whole project as open data.',
  extensions: ['.kadrel.json', '.json'],
  mime: 'application/json',
  holds: 'document',
  write: ({ document }) => `${JSON.stringify(document, null, 2)}\n`,
};
