/** What is sent and answered about accounts. */
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import type { Account } from '../data/entities.ts';

const email = z.email('This is not an address.').max(254);
const newPassword = z.string().min(10, 'At least 10 characters.').max(200);
/** Whoever signs up. */
export class SignUp extends createZodDto(
  z.strictObject({
    email,
    name: z.string().trim().min(1, 'Say what you are called.').max(120),
    password: newPassword,
  }),
) {}
/** Another password; the old one is said too. */
export class ChangePassword extends createZodDto(
  z.strictObject({ old: z.string().min(1).max(200), fresh: newPassword }),
) {}
/** Guests have no password. */
export class DeleteAccount extends createZodDto(
  z.strictObject({ password: z.string().max(200).optional() }),
) {}
/** Where an account is signed in. */
export class OpenSession extends createZodDto(
  z.object({ isThis: z.boolean(), usedAt: z.string(), expiresAt: z.string() }),
) {}
/** Address and password. */
export class SignIn extends createZodDto(z.strictObject({ email, password: z.string().min(1).max(200) })) {}
const me = z.object({ id: z.string(), email: z.string(), name: z.string(), guest: z.boolean() });
/** Who is signed in. */
export class Me extends createZodDto(me) {}
/** Who is signed in now; or `confirm`, the address that a message was sent to. */
export class SignedUp extends createZodDto(me.partial().extend({ confirm: z.string().optional() })) {}
/** What the link of a message holds. */
export class Confirm extends createZodDto(z.strictObject({ token: z.string().min(1).max(200) })) {}
/** What the start screen gets to know. */
export class Start extends createZodDto(
  z.object({
    demo: z.boolean(),
    /** How long an archived project is kept. */
    archiveDays: z.number(),
    me: me.nullable(),
  }),
) {}

/** An account as its owner sees it. */
export const shown = ({ id, email: address, name, guest }: Account) => ({ id, email: address, name, guest });
