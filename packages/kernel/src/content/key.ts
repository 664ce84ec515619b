/** Keys of contents: equal keys mean equal solids with equal names. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Content, OperandContent } from './content.ts';

/** Longer ones are replaced by their digest, so that the key of a whole is made from those of its parts, and not from all that they hold. */
const MAX_LETTERS = 120;

const known = new WeakMap<Content, string>();

/** Numbers are written so that they read back bit for bit. */
export function keyOf(content: Content): string {
  const before = known.get(content);
  if (before !== undefined) return before;
  const text = textOf(content);
  const key = text.length > MAX_LETTERS ? `${content.kind}#${bytesToHex(sha256(text))}` : text;
  known.set(content, key);
  return key;
}

function textOf(content: Content): string {
  if (content.kind === 'combine') {
    const operands = content.operands.map((one, i) => operandText(one, i === 0 ? '' : one.tag));
    return `${content.how}(${operands.join(';')})`;
  }
  if ('tool' in content) {
    const { of, tool, ...own } = content;
    return `${JSON.stringify(own)}(${keyOf(of)};${operandText(tool, tool.tag)})`;
  }
  if (content.kind === 'section')
    return `section ${content.size}(${content.pieces.map((one) => operandText(one, one.tag)).join(';')})`;
  if (content.kind === 'sectioned') {
    const { solid, ...own } = content;
    return `${JSON.stringify(own)}(${keyOf(solid)})`;
  }
  if (!('of' in content)) return JSON.stringify(content);
  const { of, ...own } = content;
  return `${JSON.stringify(own)}(${keyOf(of)})`;
}

const operandText = ({ pose, content }: OperandContent, tag: string): string =>
  `${tag}@${pose.shift.join(',')}/${pose.turn.join(',')}:${keyOf(content)}`;
