import { LiquidError, type Liquid, type Template } from 'liquidjs'
import { makeEngine, TEMPLATE_FILTERS, TEMPLATE_LIMITS } from './engine'

/** Where something stands in a template, both from 1. */
export interface Place { line: number, column: number }

export interface TemplateProblem extends Place { message: string }

export type ParsedTemplate = { ok: true, engine: Liquid, pieces: Template[] } | { ok: false, problems: TemplateProblem[] }

/** Parses a template, or says what is wrong with it and where. Never throws. */
export function parseTemplate(source: string): ParsedTemplate {
  const limit = overLimit(source)
  if (limit) return { ok: false, problems: [limit] }
  const engine = makeEngine()
  try {
    return { ok: true, engine, pieces: engine.parse(source) }
  }
  catch (error) {
    return { ok: false, problems: [describe(error)] }
  }
}

/** Checked on the source, before a parser recurses into it. */
function overLimit(source: string): TemplateProblem | null {
  if (source.length > TEMPLATE_LIMITS.length) {
    return { line: 1, column: 1, message: `The template has ${source.length} characters; ${TEMPLATE_LIMITS.length} is the most.` }
  }
  let depth = 0
  let count = 0
  for (const match of source.matchAll(/\{\{|\{%-?\s*(end)?(\w+)?/g)) {
    if (++count > TEMPLATE_LIMITS.pieces)
      return {
        ...placeAt(source, match.index),
        message: `The template has more than ${TEMPLATE_LIMITS.pieces} fields and conditions. Make it simpler.`,
      }
    if (match[0] === '{{') continue
    depth += match[1] ? -1 : ['if', 'unless', 'case'].includes(match[2] ?? '') ? 1 : 0
    if (depth > TEMPLATE_LIMITS.nesting)
      return {
        ...placeAt(source, match.index),
        message: `More than ${TEMPLATE_LIMITS.nesting} conditions inside each other. Make it simpler.`,
      }
  }
  return null
}

export function placeAt(source: string, index: number): Place {
  const before = source.slice(0, index).split('\n')
  return { line: before.length, column: before.at(-1)!.length + 1 }
}

function describe(error: unknown): TemplateProblem {
  if (!LiquidError.is(error)) throw error
  const [line, column] = error.token.getPosition() as [number, number]
  return { line, column, message: plain(error.originalError?.message ?? error.message) }
}

/** The parser's messages in our words. */
function plain(message: string): string {
  const text = message.split(', line:')[0]!
  const filter = /undefined filter: (.+)/.exec(text)
  if (filter) return `There is no format “${filter[1]}”. Known are ${TEMPLATE_FILTERS.join(', ')}.`
  const tag = /tag "?([^"]+?)"? not found/.exec(text)
  if (tag) return `“${tag[1]}” cannot be used in a template. Conditions are if, unless and case.`
  const open = /tag (.+) not closed/.exec(text)
  if (open) return `${open[1]} has no end. Write {% end… %} where the condition ends.`
  if (/output .* not closed/.test(text)) return 'A field is not closed. Write }} behind it.'
  return `This cannot be read: ${text}.`
}
