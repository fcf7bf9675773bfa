import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** The folders of the core in their order: each imports only from itself and from those before it. */
const LAYERS = [
  'score',
  'style',
  'analysis',
  'collation',
  'players',
  'survey',
  'markings',
  'reading',
  'performance',
  'technique',
  'proof',
  'edition',
  'rehearsal'
];

/** Things of Node, of frameworks and of the application: the core has no interface and no I/O. The validator is handed in. */
const OUTSIDE = {
  regex: '^(node:|svelte|\\$app|\\$lib|@sveltejs|carbon|drizzle|@libsql|\\.\\./\\.\\./lib)',
  message: 'src/core has no interface and no I/O.'
};
const TYPES_ONLY = { group: ['joi'], allowTypeImports: true, message: 'The validator is handed in; only its types are known here.' };

const layers = LAYERS.map((folder, k) => ({
  files: [`src/core/${folder}/**`],
  rules: {
    '@typescript-eslint/no-restricted-imports': [
      'error',
      {
        patterns: [
          OUTSIDE,
          TYPES_ONLY,
          ...LAYERS.slice(k + 1).map((later) => ({
            regex: `^(\\.\\./)+${later}/`,
            message: `${folder} comes before ${later}: ${LAYERS.join(', ')}.`
          }))
        ]
      }
    ]
  }
}));

export default ts.config(
  { ignores: ['build/', '.svelte-kit/', 'data/', 'node_modules/', 'test-results/', 'test-results-data/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } }
  },
  {
    rules: {
      // TypeScript knows what is defined.
      'no-undef': 'off',
      'svelte/no-navigation-without-resolve': 'off',
      // Its reading of ignore comments with reasons is wrong; svelte-check reports real ones.
      'svelte/no-unused-svelte-ignore': 'off',
      // Plain collections are meant: they are replaced whole, never watched inside.
      'svelte/prefer-svelte-reactivity': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }]
    }
  },
  {
    // The core knows no interface, no framework and no machine.
    files: ['src/core/**'],
    rules: {
      '@typescript-eslint/no-restricted-imports': ['error', { patterns: [OUTSIDE, TYPES_ONLY] }],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage']
    }
  },
  ...layers
);
