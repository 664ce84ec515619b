import { HttpStatus } from '@nestjs/common';
import { dictionary } from '@zxcvbn-ts/language-common';
import { Problem } from '../common/problem.ts';

/** The passwords that most people take, and whoever guesses tries first: 49,000 of them, gathered from what has leaked. */
const COMMON = new Set<string>(dictionary['passwords-common'] as readonly string[]);
const ROWS = '0123456789012345678909876543210987654321 qwertyuiopasdfghjklzxcvbnm abcdefghijklmnopqrstuvwxyz';

/** Throws a Problem where a password is one that is guessed first. */
export function requireUncommon(password: string, { email, name }: { email: string; name: string }): void {
  const plain = password.toLowerCase();
  const stem = plain.replace(/[\d!.?*#-]+$/, '');
  const isCommon =
    COMMON.has(plain) || (stem.length > 0 && COMMON.has(stem) && plain.length - stem.length < 5);
  const isOneRow = new Set(plain).size < 4 || ROWS.includes(plain);
  const isAboutThem = [email, email.split('@')[0]!, name].some((one) => one.toLowerCase() === plain);
  if (!isCommon && !isOneRow && !isAboutThem) return;
  throw new Problem(
    HttpStatus.UNPROCESSABLE_ENTITY,
    'This password is one of those that are guessed first. Three or four words that do not belong together are better.',
  );
}
