import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

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
    // The core knows no interface, no framework and no machine, and its folders import only from those before them.
    files: ['src/core/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^(node:|svelte|\\$app|\\$lib|@sveltejs|carbon|drizzle|@libsql|\\.\\./\\.\\./lib)',
              message: 'src/core has no interface and no I/O.'
            }
          ]
        }
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage']
    }
  }
);
