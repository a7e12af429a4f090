// @ts-check
import { readdirSync, readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { GUESTS, SCHEMA_OF } from './rooms.mjs'

const WRITES = new Set(['insert', 'update', 'delete'])
const WRITES_IN_SQL = /\b(insert into|update|delete from)\s*$/i

/**
 * Which room each table belongs to: that of the schema file in which it stands.
 *
 * @param {string} folder of the schema
 * @returns {Map<string, string>} a table's name in code to its room
 */
export function homesOf(folder) {
  const files = readdirSync(folder).filter(file => file.endsWith('.ts'))
  return new Map(files.flatMap((file) => {
    const name = basename(file, '.ts')
    const tables = [...readFileSync(join(folder, file), 'utf8').matchAll(/export const (\w+) = pgTable\(/g)]
    return tables.map(([, table]) => /** @type {[string, string]} */ ([table, SCHEMA_OF[name] ?? name]))
  }))
}

/** Only its own room writes a table. Everybody may read it: a statement reads in one what several rooms keep. */
export const ownTables = {
  meta: {
    type: 'problem',
    schema: [{ type: 'object', properties: { room: { type: 'string' }, schema: { type: 'string' } }, required: ['room', 'schema'] }],
    messages: { foreign: '{{room}}/ writes {{table}}, which is {{home}}’s. Let a function of server/{{home}} write it.' },
  },
  /** @param {import('eslint').Rule.RuleContext} context */
  create(context) {
    const { room, schema } = context.options[0]
    const homes = homesOf(schema)
    /** @param {import('estree').Node | undefined} node */
    const check = (node) => {
      if (node?.type !== 'Identifier') return
      const home = homes.get(node.name)
      if (!home || home === room || GUESTS[room]?.includes(home)) return
      context.report({ node, messageId: 'foreign', data: { room, table: node.name, home } })
    }
    return {
      /** @param {import('estree').CallExpression} node */
      CallExpression({ callee, arguments: [first] }) {
        const writes = callee.type === 'MemberExpression' && callee.property.type === 'Identifier' && WRITES.has(callee.property.name)
        const writesAll = callee.type === 'Identifier' && callee.name === 'insertAll'
        if (writes || writesAll) check(first)
      },
      /** @param {import('estree').TaggedTemplateExpression} node */
      TaggedTemplateExpression({ tag, quasi }) {
        if (tag.type !== 'Identifier' || tag.name !== 'sql') return
        quasi.expressions.forEach((expression, i) => {
          if (WRITES_IN_SQL.test(quasi.quasis[i]?.value.raw ?? '')) check(expression)
        })
      },
    }
  },
}
