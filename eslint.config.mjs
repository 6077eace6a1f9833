import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

const differing = [
  'sin',
  'cos',
  'tan',
  'exp',
  'log',
  'log2',
  'log10',
  'pow',
  'tanh',
  'sinh',
  'cosh',
  'cbrt',
  'expm1',
  'log1p',
  'hypot',
  'random',
  'atan',
  'atan2',
  'asin',
  'acos',
]
const hostGlobals = [
  'window',
  'document',
  'navigator',
  'localStorage',
  'process',
  'Buffer',
  'fetch',
  'setTimeout',
  'setInterval',
  'indexedDB',
  'require',
  'performance',
  'console',
]
const test = ['**/*.test.ts', '**/*.test.tsx']

/** The floors of the application, from the ground up: a room knows what lies below it, never what lies above. */
const floors = ['ui', 'documents|sync', 'audio', 'kit-view', 'shell', 'features', 'app']
const places = 'board|cut|gather|groove|kits|place|record|record-here|shape|ship|starts'

/** What a room of the application may not import: rooms above it, and of a place anything but its door. */
function floor(rooms, ...more) {
  const above = floors.slice(floors.indexOf(rooms) + 1)
  const patterns = [
    ...above.map((room) => ({ regex: `^(\\.\\./)+(${room})(/|$)`, message: `A room knows what is below it; ${room} is above.` })),
    { regex: `^(\\./|(\\.\\./)+)(features/)?(${places})/.`, message: 'Places meet only through their index.ts.' },
    ...more,
    { regex: '^@rneui/(base$|themed$)', message: 'Take one element: @rneui/themed/dist/NAME; the door drags in all of them.' },
    ...(rooms === 'ui' ? [] : [{ regex: '^@rneui/(base|themed)/dist/(?!config)', message: 'Elements are dressed in app/ui.' }]),
  ]
  return {
    files: rooms.split('|').flatMap((room) => [`app/${room}/**/*.ts`, `app/${room}/**/*.tsx`]),
    rules: { 'no-restricted-imports': ['error', { patterns }] },
  }
}

export default tseslint.config(
  {
    ignores: [
      '**/node_modules/**',
      '**/dist/**',
      '.data/**',
      '.build/**',
      'app/public/**',
      '**/.expo/**',
      '**/expo-env.d.ts',
      'playwright-report/**',
      'test-results/**',
      // The kernel's language is TypeScript's by its looks only; its own compiler checks it.
      'core/engine/kernel/assembly/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    rules: {
      eqeqeq: 'error',
      'max-params': ['error', 8],
      'no-var': 'error',
      'prefer-const': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-require-imports': 'off',
    },
  },
  {
    // Core is computed anywhere: it knows no screen, no network, no clock and no host.
    files: ['core/**/*.ts'],
    ignores: test,
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^(node:|react|expo|hono|typeorm|zustand|fs|path|os|@heliaster/)',
              message: 'core imports no host, no screen and no other room.',
            },
          ],
        },
      ],
      'no-restricted-globals': ['error', ...hostGlobals],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Chance comes in as an argument.' },
        { object: 'Date', property: 'now', message: 'Time comes in as an argument.' },
      ],
    },
  },
  {
    // The engine gives the same samples in every host: no built-in function whose last bit differs, no power operator.
    files: ['core/engine/**/*.ts'],
    ignores: [...test, 'core/engine/testing/voice-model/**'],
    rules: {
      'no-restricted-properties': [
        'error',
        ...differing.map((property) => ({ object: 'Math', property, message: 'Differs between hosts; use core/engine/math.ts.' })),
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "BinaryExpression[operator='**'], AssignmentExpression[operator='**=']", message: 'Differs between hosts; use exp2.' },
      ],
      'no-restricted-globals': ['error', ...hostGlobals, 'TextDecoder', 'TextEncoder', 'crypto', 'URL'],
    },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // What React's compiler relies on: what is drawn follows from what was given, and from nothing that changes unseen.
    files: ['app/**/*.{ts,tsx}'],
    ignores: ['**/*.test.*'],
    rules: Object.fromEntries(
      ['globals', 'immutability', 'preserve-manual-memoization', 'purity', 'set-state-in-render', 'static-components', 'use-memo'].map((rule) => [`react-hooks/${rule}`, 'error']), // prettier-ignore
    ),
  },
  floor('ui', { regex: '^@heliaster/', message: 'ui knows no kit and no audio.' }),
  ...floors.slice(1).map((rooms) => floor(rooms)),
)
