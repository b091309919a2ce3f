import js from '@eslint/js';
import astro from 'eslint-plugin-astro';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const NODE_GLOBALS = {
  process: 'readonly',
  console: 'readonly',
  URL: 'readonly',
  fetch: 'readonly',
  setTimeout: 'readonly',
};

export default tseslint.config(
  { ignores: ['dist/**', 'node_modules/**', '.astro/**', '.stryker-tmp/**', 'reports/**', 'data/**'] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  ...astro.configs.recommended,
  {
    rules: {
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
      'max-params': ['error', 3],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      // Numbers are read aloud in sentences and keys; a number in a template is what is meant.
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      // A handler that passes a call's nothing on is the plain way to write it.
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      eqeqeq: 'error',
      'no-console': 'off',
    },
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
  },
  {
    files: ['src/**/*.tsx', 'src/ui/**/*.ts', 'src/islands/**/*.ts'],
    plugins: { 'react-hooks': reactHooks },
    // Nothing is memoised by a compiler here: a library that could not be is no matter.
    rules: { ...reactHooks.configs.recommended.rules, 'react-hooks/incompatible-library': 'off' },
  },
  { files: ['src/**/*.tsx'], ...jsxA11y.flatConfigs.recommended },
  {
    files: ['tests/**'],
    rules: {
      'max-lines-per-function': 'off',
      'max-params': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      // expect.any() and its like are typed any by the test runner.
      '@typescript-eslint/no-unsafe-assignment': 'off',
    },
  },
  {
    // Type-aware rules need a type program, which a page's front matter has not; `astro check` reads those types.
    files: ['**/*.astro', '**/*.mjs'],
    extends: [tseslint.configs.disableTypeChecked],
    rules: { '@typescript-eslint/switch-exhaustiveness-check': 'off' },
    languageOptions: { parserOptions: { projectService: false }, globals: NODE_GLOBALS },
  },
);
