import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import { readdirSync } from 'node:fs'
import ts from 'typescript-eslint'

/** Places stand side by side: what two of them share is in `shared/`, which knows none of them. */
const places = readdirSync('src/places')
const apart = [
  ...places.map((place) => ({
    files: [`src/places/${place}/**`],
    regex: `^(@/places/(?!${place}/)|\\.\\./)`,
    message: 'A place imports from itself and from @/shared.',
  })),
  { files: ['src/shared/**'], regex: '^(@/places/|\\.\\./)', message: 'What is shared knows no place.' },
].map(({ files, regex, message }) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ regex, message }] }] },
}))

export default ts.config(
  { ignores: ['dist*/**', 'src/shared/api/schema.ts'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.{ts,vue}'],
    languageOptions: { globals: globals.browser, parserOptions: { parser: ts.parser } },
    rules: { 'vue/multi-word-component-names': 'off', complexity: ['error', 10] },
  },
  { files: ['public/worker.js'], languageOptions: { globals: globals.serviceworker } },
  ...apart,
  prettier,
)
