/**
 * What the first screens ask of the server. What the workshop asks is apart: the schemas of documents are the core's, which these screens
 * need not wait for.
 */
import type { Scene } from '@kadrel/core';
import { z } from 'zod';
import { call } from './call.ts';

const meSchema = z.object({ id: z.string(), email: z.string(), name: z.string(), guest: z.boolean() });
/** Who is signed in now; or `confirm`, the address that a message was sent to. */
const signedUpSchema = meSchema.partial().extend({ confirm: z.string().optional() });
const startSchema = z.object({ demo: z.boolean(), archiveDays: z.number(), me: meSchema.nullable() });
const sessionsSchema = z.array(z.object({ isThis: z.boolean(), usedAt: z.string(), expiresAt: z.string() }));
/** What is told of a project that is not open. */
export const projectSchema = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number(),
  picture: z.string().nullable(),
  archived: z.boolean(),
  changedAt: z.string(),
});
export type ProjectCard = z.infer<typeof projectSchema>;
const nothing = z.undefined();

/** What the first screens ask of the server: accounts and projects as cards. */
export const api = {
  start: () => call('GET', '/start', startSchema),
  signUp: (body: { email: string; name: string; password: string }) =>
    call('POST', '/sign-up', signedUpSchema, body),
  /** By the link of a message. */
  confirm: (token: string) => call('POST', '/sign-up/confirm', meSchema, { token }),
  signIn: (body: { email: string; password: string }) => call('POST', '/sign-in', meSchema, body),
  demo: () => call('POST', '/demo', meSchema),
  signOut: () => call('POST', '/sign-out', nothing),
  sessions: () => call('GET', '/sessions', sessionsSchema),
  closeOtherSessions: () => call('DELETE', '/sessions', nothing),
  changePassword: (body: { old: string; fresh: string }) => call('PUT', '/password', nothing, body),
  deleteAccount: (password: string) => call('DELETE', '/account', nothing, { password }),
  projects: () => call('GET', '/projects', z.array(projectSchema)),
  createProject: (name: string, scene: Partial<Scene>) =>
    call('POST', '/projects', projectSchema, { name, scene }),
  openFile: (name: string, document: unknown) =>
    call('POST', '/projects/from-file', projectSchema, { name, document }),
  changeProject: (id: string, body: { name?: string; archived?: boolean }) =>
    call('PATCH', `/projects/${id}`, projectSchema, body),
  deleteProject: (id: string) => call('DELETE', `/projects/${id}`, nothing),
  duplicateProject: (id: string) => call('POST', `/projects/${id}/duplicate`, projectSchema),
  setPicture: (id: string, picture: Blob) => call('PUT', `/projects/${id}/picture`, projectSchema, picture),
};
