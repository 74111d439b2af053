import { readdirSync } from 'node:fs'

import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist', 'node_modules', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    rules: {
      'no-undef': 'off', // the type checker knows better
      'vue/multi-word-component-names': 'off',
    },
  },
  {
    // A component shows, a composable thinks: it asks the server.
    files: ['**/*.vue'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [{ name: '@/api/client', message: 'Ask in a composable.', allowTypeImports: true }],
        },
      ],
    },
  },
  ...readdirSync(new URL('./src/features', import.meta.url), { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => ({
      // What two features share lies in ui, composables or stores.
      files: [`src/features/${name}/**`],
      rules: {
        'no-restricted-imports': [
          'error',
          { patterns: [{ regex: `^@/features/(?!${name}/)`, message: 'Share it in ui or composables.' }] },
        ],
      },
    })),
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  prettier,
)
