import type { Field } from './fields'
import { parseTemplate, type TemplateProblem } from './parse'

/** Names that a condition may use beside the fields: the literals of Liquid. */
const LITERALS = new Set(['blank', 'empty', 'nil', 'null', 'true', 'false'])

/**
 * Everything that is wrong with a template for the modules it belongs to, with places.
 *
 * @param source Liquid
 * @param fieldsByModule the catalogue of each module; a field has to be in all of them
 * @returns an empty list if the template may be saved
 */
export function checkTemplate(source: string, fieldsByModule: Record<string, Field[]>): TemplateProblem[] {
  if (source.trim() === '') return [{ line: 1, column: 1, message: 'The template is empty. Write the text that is to be sent.' }]
  const parsed = parseTemplate(source)
  if (!parsed.ok) return parsed.problems
  const { variables } = parsed.engine.analyzeSync(parsed.pieces)
  return Object.values(variables)
    .flat()
    .filter(variable => !LITERALS.has(variable.toString()))
    .flatMap((variable) => {
      const message = whyUnusable(variable.toArray(), fieldsByModule)
      return message ? [{ line: variable.location.row, column: variable.location.col, message }] : []
    })
    .sort((a, b) => a.line - b.line || a.column - b.column)
}

function whyUnusable(segments: unknown[], fieldsByModule: Record<string, Field[]>): string | null {
  const path = segments.every(segment => typeof segment === 'string') ? segments.join('.') : null
  if (path === null) return 'A field is named by words and a dot, such as person.first_name.'
  const lacking = Object.entries(fieldsByModule)
    .filter(([, fields]) => !fields.some(field => field.path === path))
    .map(([module]) => module)
  if (lacking.length === 0) return null
  const everywhere = Object.values(fieldsByModule)
  if (lacking.length === everywhere.length) return `There is no field “${path}”.${nearest(path, everywhere.flat())}`
  return `“${path}” does not exist for ${lacking.join(' and ')}, to which this template belongs too.`
}

function nearest(path: string, fields: Field[]): string {
  const last = path.split('.').at(-1)!.toLowerCase()
  const close = fields.find(field => field.path.endsWith(`.${last}`) || field.label.toLowerCase() === last.replaceAll('_', ' '))
    ?? fields.find(field => last.length > 2 && field.path.includes(last.slice(0, Math.max(3, last.length - 2))))
  return close ? ` Did you mean ${close.path}?` : ' Choose one from the list of fields.'
}
