import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import typescript from 'typescript-eslint';

export default typescript.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.cache/**', '.data/**', 'test-results/**', '*.tmp.mjs'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...typescript.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
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
    files: ['apps/server/**/*.ts'],
    // Nest fills constructors by the classes that they name: these imports must stay values.
    rules: {
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
