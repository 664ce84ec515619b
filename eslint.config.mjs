import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import typescript from 'typescript-eslint';

/** Three is the rule, which `npm run measure` holds to 2 % of functions; more than four never. */
const MAX_PARAMS = { 'max-params': ['error', 4] };

/** What a flag means is said where it is passed. */
const NO_BOOLEAN_PARAMETER = {
  'no-restricted-syntax': [
    'error',
    ...['FunctionDeclaration', 'FunctionExpression', 'ArrowFunctionExpression'].flatMap((of) =>
      [
        `${of} > Identifier.params > TSTypeAnnotation > TSBooleanKeyword`,
        `${of} > AssignmentPattern.params[right.raw=/^(true|false)$/]`,
      ].map((selector) => ({ selector, message: 'Say it in words, or pass a field with a name.' })),
    ),
  ],
};

/** All that is written, in two programs: each package by itself would have the core read and checked again. */
const PROGRAMS = ['tsconfig.everything.json', 'apps/server/tsconfig.json'];

export default typescript.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.cache/**', '.data/**', 'test-results/**', '*.tmp.mjs'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...typescript.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { project: PROGRAMS, tsconfigRootDir: import.meta.dirname } },
    rules: {
      'max-lines': ['error', { max: 700, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      eqeqeq: 'error',
      // What people type is kept as `unknown`, and is shown as text whatever it is.
      '@typescript-eslint/no-base-to-string': 'off',
    },
  },
  {
    // How long and how wide code is; `npm run measure` counts the same, and what is exported without a comment.
    files: ['packages/*/src/**/*.ts', 'apps/*/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.fixture.ts', '**/testing.ts'],
    rules: {
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 40, skipBlankLines: true, skipComments: true }],
      'max-depth': ['error', 4],
      ...MAX_PARAMS,
      ...NO_BOOLEAN_PARAMETER,
    },
  },
  {
    // A component is read from top to bottom.
    files: ['apps/web/src/**/*.tsx'],
    rules: {
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
      'max-depth': ['error', 4],
      ...MAX_PARAMS,
      ...NO_BOOLEAN_PARAMETER,
    },
  },
  {
    files: ['apps/server/**/*.ts'],
    // Nest fills constructors by the classes that they name: these imports must stay values. What a request brings comes in parameters.
    rules: {
      'max-params': ['error', 5],
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
    },
  },
  // Bodies of answers come as `any` from the library that asks for them.
  { files: ['apps/server/**/*.test.ts'], rules: { '@typescript-eslint/no-unsafe-assignment': 'off' } },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['**/*.{mjs,cjs,js}'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        Buffer: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        performance: 'readonly',
        fetch: 'readonly',
        AbortSignal: 'readonly',
        module: 'writable',
        globalThis: 'readonly',
        window: 'readonly',
        document: 'readonly',
        requestAnimationFrame: 'readonly',
        KeyboardEvent: 'readonly',
      },
    },
  },
);
