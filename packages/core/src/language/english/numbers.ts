/** British English sentences: reading numbers and formulas. */
import type { Facts } from './facts.ts';

export const NUMBERS_SENTENCES = {
  'no-measure': ({ name }: Facts<'name'>) =>
    `There is no kept measure named ${name}, or it has no value. Keep it by Measure first.`,
  cycle: ({ cycle }: Facts<'cycle'>) => `These variables refer to one another in a circle: ${cycle}.`,
  'name.letters': ({ name }: Facts<'name'>) =>
    `“${name}” is not a name: use letters, digits and _, and begin with a letter.`,
  'name.word': ({ name }: Facts<'name'>) => `“${name}” is a word of the number language.`,
  'name.unit': ({ name }: Facts<'name'>) => `“${name}” is a unit.`,
  arguments: ({ name, wanted, words }: Facts<'name' | 'wanted' | 'words'>) =>
    `${name} takes ${wanted} value${words}.`,
  comma: () => 'Use a point for decimals; a comma separates arguments.',
  'dimension.angle': ({ dimension }: Facts<'dimension'>) => `This is ${dimension}; an angle belongs here.`,
  'dimension.belongs': ({ word, wanted }: Facts<'word' | 'wanted'>) =>
    `This is ${word}; ${wanted} belongs here.`,
  'dimension.plain': ({ what, dimension }: Facts<'what' | 'dimension'>) =>
    `${what} must be a plain number, not ${dimension}.`,
  'dimension.these': ({ words }: Facts<'words'>) => `These do not go together: ${words}.`,
  'division-by-zero': () => 'Division by zero.',
  'empty.type': () => 'Type a number.',
  'missing-unit': () => 'Say which unit this number has.',
  'no-now': () => 'There is no present value for “now” here.',
  'not-whole': () => 'A whole number belongs here.',
  'percent-place': () => 'A percentage is a slope; a length belongs here.',
  'root-of-negative': () => 'A negative number has no square root.',
  'slope-place.such-belongs': () => 'A slope such as 1:12 belongs in an angle.',
  'slope-place.such-stands': () => 'A slope such as 1:12 stands alone in its field.',
  step: () => 'The step must be more than zero.',
  'too-deep': () => 'Too many brackets in one another.',
  'too-large': () => 'This is too large.',
  'too-large.more': ({ limit }: Facts<'limit'>) => `This is more than ${limit}.`,
  'too-large.number': () => 'This number is too large.',
  'too-long.most': ({ maxTokens }: Facts<'maxTokens'>) =>
    `This is too long: at most ${maxTokens} numbers and signs.`,
  unclosed: ({ text }: Facts<'text'>) => `A closing “${text}” is missing.`,
  undefined: () => 'This has no value.',
  unexpected: ({ text }: Facts<'text'>) => `“${text}” does not fit here.`,
  unfinished: () => 'Something is missing at the end.',
  'unit-order': () => 'The larger unit comes first, as in 5 ft 3 in.',
  'unknown-character': ({ char }: Facts<'char'>) => `“${char}” means nothing in a number.`,
  'unknown-function': ({ name }: Facts<'name'>) => `There is no function “${name}”.`,
  'unknown-name': ({ name }: Facts<'name'>) => `“${name}” is neither a variable nor a unit.`,
  'unknown-unit': ({ text }: Facts<'text'>) =>
    `“${text}” is not a unit, and two values need an operator between them.`,
};
