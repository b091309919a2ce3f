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

/** Factors and times have one place each. */
const FACTORS = {
  selector:
    'Literal[raw=/^(1\\.96|1\\.2816|86_?400_?000|3_?600_?000|0\\.3048|39\\.37\\d*|0\\.0254|0\\.00508|3\\.2808\\d*)$/]',
  message: 'Take unit factors from core/units, times from core/calendar/time, quantiles from core/numeric/normal.',
};

/** Digits are chosen by the functions of core/units, so that a number reads the same on every page. */
const DECIMALS = {
  selector: 'MemberExpression[property.name=/^(toFixed|toPrecision)$/]',
  message: 'Take fixed, significant, toDigits or toDecimals from core/units.',
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
      // The code has neither enums nor class hierarchies; these two take a third of the time to find nothing.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      // Asks the type of every name. The versions are locked; the type check shows what an upgrade removes.
      '@typescript-eslint/no-deprecated': 'off',
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
    // The other rules of the plug-in run a compiler over each component, which the build does not use.
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  { files: ['src/**/*.tsx'], ...jsxA11y.flatConfigs.recommended },
  { files: ['{demo,scripts}/**/*.ts'], rules: { 'no-restricted-syntax': ['error', FACTORS] } },
  {
    files: ['src/**/*.{ts,tsx,astro}', 'cli/**/*.ts'],
    ignores: [
      'src/core/units/**',
      'src/core/calendar/time.ts',
      'src/core/numeric/normal.ts',
      // Equations of publications that have inches in them.
      'src/core/measure/orifice.ts',
    ],
    rules: {
      'no-restricted-syntax': ['error', FACTORS, DECIMALS],
    },
  },
  {
    // A message words an outcome. It compares the length of a list at most; digits and units are chosen in format.ts.
    files: ['src/messages/**/*.ts'],
    ignores: ['src/messages/format.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        FACTORS,
        DECIMALS,
        {
          selector: "BinaryExpression[operator=/^[<>]=?$/]:not([left.property.name='length'])",
          message: 'Decide it in the core, or choose digits and units in messages/format.ts.',
        },
      ],
    },
  },
  {
    files: ['tests/**'],
    rules: {
      'max-lines-per-function': 'off',
      'max-params': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
    },
  },
  {
    // Type-aware rules need a type program, which a page's front matter does not have; `astro check` reads those types.
    // In tests they took more than half of the linter's time; `tsc` checks the types of tests.
    files: ['**/*.astro', '**/*.mjs', 'tests/**'],
    extends: [tseslint.configs.disableTypeChecked],
    rules: { '@typescript-eslint/switch-exhaustiveness-check': 'off' },
    languageOptions: { parserOptions: { projectService: false }, globals: NODE_GLOBALS },
  },
);
