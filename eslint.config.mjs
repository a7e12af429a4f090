// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

/** Imports go one way: app -> shared -> core, server -> shared and core, core -> nothing; the practice world stands alone. */
const floors = [
  { files: ['core/**'], may: 'nothing of the house but core', refuse: ['**/app/**', '**/shared/**', '**/server/**', '**/practice/**', '**/demo/**', '~/**', 'vue', 'nuxt', 'h3', 'drizzle-orm', 'drizzle-orm/**', 'pg', 'node:*', '#*'] },
  { files: ['shared/**'], may: 'core only', refuse: ['**/app/**', '**/server/**', '**/practice/**', '**/demo/**', '~/**', 'vue', 'h3', 'drizzle-orm', 'drizzle-orm/**', 'node:*'] },
  { files: ['app/**'], may: 'shared and core only', refuse: ['**/server/**', '**/practice/**', '**/demo/**', 'h3', 'drizzle-orm', 'drizzle-orm/**', 'pg', 'node:*'] },
  { files: ['server/**'], may: 'shared and core only', refuse: ['**/app/**', '**/practice/**', '**/demo/**', '~/**', 'vue'] },
  { files: ['practice/**'], may: 'nothing of the house: it is the world outside', refuse: ['**/app/**', '**/core/**', '**/shared/**', '**/server/**', '**/demo/**', '~~/**', '~/**'] },
]

export default withNuxt(
  { ignores: ['server/db/migrations/**', 'docs/**'] },
  ...floors.map(({ files, may, refuse }) => ({
    files,
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: refuse, message: `${files[0]?.split('/')[0]}/ imports ${may}.` }] }] },
  })),
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      // a break inside of a sentence would be a blank on the page
      'vue/singleline-html-element-content-newline': 'off',
      'nuxt/nuxt-config-keys-order': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
    },
  },
)
