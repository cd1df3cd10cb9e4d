import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

/** Controls exist once, in shared/ui; requests go through the typed client. */
const CONTROLS =
  'button|input|select|textarea|table|v-(btn|menu|dialog|text-field|select|radio|radio-group|checkbox|slider|range-slider|card|table)'

export default [
  { ignores: ['node_modules', 'src/shared/api/schema.d.ts'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  { rules: { 'vue/multi-word-component-names': 'off', 'vue/require-default-prop': 'off' } },
  {
    files: ['src/**'],
    rules: {
      '@typescript-eslint/no-unused-vars': 'error',
      'no-restricted-globals': [
        'error',
        { name: 'fetch', message: 'Use the typed client: shared/api/client.' },
      ],
    },
  },
  {
    files: ['src/**/*.vue'],
    ignores: ['src/shared/ui/**'],
    rules: {
      'vue/no-restricted-syntax': [
        'error',
        { selector: `VElement[rawName=/^(${CONTROLS})$/]`, message: 'Use the control of shared/ui.' },
      ],
    },
  },
  prettier,
]
