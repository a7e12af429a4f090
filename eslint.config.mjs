// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'
import { ownTables } from './scripts/lint/own-tables.mjs'
import { above, ROOMS } from './scripts/lint/rooms.mjs'

/** Imports go one way: app -> shared -> core, server -> shared and core, core -> nothing; the practice world stands alone. */
const floors = [
  { files: ['core/**'], may: 'nothing of the house but core', refuse: ['**/app/**', '**/shared/**', '**/server/**', '**/practice/**', '**/demo/**', '~/**', 'vue', 'nuxt', 'h3', 'drizzle-orm', 'drizzle-orm/**', 'pg', 'node:*', '#*'] },
  { files: ['shared/**'], may: 'core only', refuse: ['**/app/**', '**/server/**', '**/practice/**', '**/demo/**', '~/**', 'vue', 'h3', 'drizzle-orm', 'drizzle-orm/**', 'node:*'] },
  { files: ['app/**'], may: 'shared and core only', refuse: ['**/server/**', '**/practice/**', '**/demo/**', 'h3', 'drizzle-orm', 'drizzle-orm/**', 'pg', 'node:*'] },
  { files: ['server/**'], may: 'shared and core only', refuse: ['**/app/**', '**/practice/**', '**/demo/**', '~/**', 'vue'] },
  { files: ['practice/**'], may: 'nothing of the house: it is the world outside', refuse: ['**/app/**', '**/core/**', '**/shared/**', '**/server/**', '**/demo/**', '~~/**', '~/**'] },
]

const server = floors.find(({ files }) => files[0] === 'server/**')

/** @param {string} may @param {string} which */
const message = (may, which) => `${which}/ imports ${may}.`

const house = { rules: { 'own-tables': ownTables } }

/** Within the server each room keeps to what stands below it, and writes only its own tables. */
const rooms = ROOMS.map(room => ({
  files: [`server/${room}/**`],
  plugins: { house },
  rules: {
    'no-restricted-imports': ['error', { patterns: [
      { group: server?.refuse ?? [], message: message(server?.may ?? '', 'server') },
      ...above(room).length > 0
        ? [{ regex: `^(\\.\\./)+(${above(room).join('|')})/|^~~/server/(${above(room).join('|')})/`, message: `server/${room} stands below it: see scripts/lint/rooms.mjs.` }]
        : [],
    ] }],
    'house/own-tables': ['error', { room, schema: 'server/db/schema' }],
  },
}))

export default withNuxt(
  { ignores: ['server/db/migrations/**', 'docs/**'] },
  ...floors.map(({ files, may, refuse }) => ({
    files,
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: refuse, message: message(may, files[0]?.split('/')[0] ?? '') }] }] },
  })),
  ...rooms,
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      // a break inside of a sentence would be a blank on the page
      'vue/singleline-html-element-content-newline': 'off',
      'nuxt/nuxt-config-keys-order': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
    },
  },
  {
    files: ['**/*.ts'],
    // what is written as a table reads best as one
    ignores: ['demo/**', 'shared/starting-sets.ts'],
    rules: { '@stylistic/max-len': ['error', { code: 140, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true }] },
  },
)
