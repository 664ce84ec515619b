/**
 * Type check of all that is written: everything but the server in one program, since each package by itself would have the core checked
 * again; the core again by itself, which must do without the names of browsers; and the server, whose decorators need other settings. By TypeScript's
 * native compiler, in a quarter of the time; the one in JavaScript stays for ESLint, which asks it for types.
 */
import { spawn } from 'node:child_process';
import { ROOT } from './project.mjs';

const PROGRAMS = ['tsconfig.everything.json', 'packages/core', 'apps/server'];

const checked = (program) =>
  new Promise((resolve) => {
    const tsc = ['node_modules/typescript-native/bin/tsc', '-p', program];
    spawn(process.execPath, tsc, { cwd: ROOT, stdio: 'inherit' }).on('close', resolve);
  });

const codes = [];
for (const program of PROGRAMS) codes.push(await checked(program));
process.exitCode = codes.every((code) => code === 0) ? 0 : 1;
