/** Every verb with its blanks, their types and defaults, made from the declarations. */
import { VERBS, type Blank } from '@kadrel/core';

export function verbListing() {
  return {
    verbs: VERBS.map(({ id, name, group, key, about, sentence, blanks }) => ({
      verb: id,
      name,
      group,
      ...(key === undefined ? {} : { key }),
      about,
      sentence,
      blanks: Object.entries(blanks).map(([blank, declared]) => ({ blank, ...listed(declared) })),
    })),
  };
}

const listed = ({
  type,
  label,
  about,
  optional,
  kind,
  least,
  positive,
  excludes,
  neededUnless,
  choices,
  columns,
  default: value,
}: Blank) => ({
  type,
  label,
  about,
  needed: !optional,
  ...(kind === undefined ? {} : { kind }),
  ...(least === undefined ? {} : { least }),
  ...(positive ? { positive } : {}),
  ...(excludes === undefined ? {} : { excludes }),
  ...(neededUnless === undefined ? {} : { neededUnless }),
  ...(choices === undefined ? {} : { choices: Object.keys(choices) }),
  ...(columns === undefined
    ? {}
    : {
        columns: Object.entries(columns).map(
          ([column, { label: words, kind: holds, needed, choices: offered }]) => ({
            column,
            label: words,
            kind: holds,
            needed: needed === true,
            ...(offered === undefined ? {} : { choices: Object.keys(offered) }),
          }),
        ),
      }),
  ...(value === undefined ? {} : { default: value }),
});
