import prettier from 'eslint-config-prettier';
import { defineConfig, globalIgnores } from 'eslint/config';
import tseslint from 'typescript-eslint';

/** Rules a machine holds. A later `no-restricted-syntax` replaces an earlier one for the same file, so each room gets one list. */

const everywhere = [{ selector: 'ExportDefaultDeclaration', message: 'Name what you export.' }];
const pureCore = [
  ...everywhere,
  { selector: "ThrowStatement > NewExpression[callee.name='Error']", message: 'Core returns findings; what we did wrong is a RangeError that starts with "Invariant:".' },
  { selector: 'CallExpression[callee.property.name=/^toLocale/]', message: 'Words and number formats live in contract/words.' },
];
const deadOnTheWeb = { selector: 'JSXAttribute[name.name=/^accessibility(State|Value|Hint|ElementsHidden)$/]', message: 'react-native-web drops it: use role and aria-*.' };
const brittle = { selector: 'CallExpression[callee.property.name=/^(waitForTimeout|getByTestId|locator)$/]', message: 'Find by role and name; wait for what you expect.' };

const rooms = ['core', 'contract', 'demo', 'server', 'cli', 'probes', 'app'];
const projects = [...rooms.flatMap((room) => [`${room}/tsconfig.json`, `${room}/tsconfig.test.json`]), 'e2e/tsconfig.json', 'bench/tsconfig.json'];

export default defineConfig([
  // AssemblyScript has types of its own: its compiler checks them.
  globalIgnores([
    'core/assembly/**',
    'core/src/sequence/engine/kernelBinary.ts',
    '**/dist/**',
    '**/.expo/**',
    '**/.cache/**',
    '**/node_modules/**',
    'test-results/**',
    'app/src/rnw/**',
    '**/*.cjs',
    '**/*.js',
  ]),
  { linterOptions: { reportUnusedDisableDirectives: 'error' } },
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.strictTypeChecked],
    languageOptions: { parserOptions: { project: projects, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { allowDefaultCaseForExhaustiveSwitch: false, considerDefaultExhaustiveForUnions: false }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-syntax': ['error', ...everywhere],
      'no-warning-comments': 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.arbitrary.ts'],
    rules: {
      'no-restricted-globals': ['error', { name: 'Date', message: 'The clock comes in through the door; calendar arithmetic is in quantity/time.ts.' }],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Chance comes in as a seed.' }],
      '@typescript-eslint/consistent-type-assertions': ['error', { assertionStyle: 'never' }],
      'no-restricted-syntax': ['error', ...pureCore],
    },
  },
  // The engine works on arrays it has laid out itself: an index that is not there is a mistake of its own, and asking each time costs half its speed.
  { files: ['core/src/sequence/engine/**/*.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  { files: ['core/src/quantity/time.ts'], rules: { 'no-restricted-globals': 'off' } },
  { files: ['app/src/**/*.tsx', 'app/app/**/*.tsx'], rules: { 'no-restricted-syntax': ['error', ...everywhere, deadOnTheWeb] } },
  // Routes and bridged modules are found by their default export.
  { files: ['app/app/**/*.tsx', 'app/src/ui/PaperIcon.tsx', 'e2e/playwright.config.ts', '**/*.d.ts'], rules: { 'no-restricted-syntax': ['error', deadOnTheWeb] } },
  // react-native-svg inherits a deprecation of x and y from its groups; on rectangles and texts they are the SVG attributes.
  { files: ['app/src/**/*.tsx'], rules: { '@typescript-eslint/no-deprecated': 'off' } },
  { files: ['e2e/**/*.ts'], rules: { 'no-restricted-syntax': ['error', ...everywhere, brittle] } },
  { files: ['e2e/playwright.config.ts'], rules: { 'no-restricted-syntax': 'off' } },
  // A test tells its data apart from wire data by hand.
  {
    files: ['**/*.test.ts', '**/*.test.tsx', 'server/src/testing/**'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off', '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  prettier,
]);
