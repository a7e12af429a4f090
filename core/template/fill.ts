import { Output, type Context, type Liquid, type Template } from 'liquidjs'
import type { FieldValues } from './fields'
import { valueIn } from '../fields/own'
import { isDay } from '../conditions/conditions'
import { isTimeOfDay, sayTime } from '../hours/format'
import { formatDate, type PersonsClock } from './dates'
import { isBlank } from './engine'
import { parseTemplate, type Place, type TemplateProblem } from './parse'

/** A field that would have left a hole: empty, without a stand-in. */
export interface Hole extends Place {
  /** The field as written, such as `person.first_name`. */
  path: string
}

/** Stands where a hole would be, in what is shown to whoever is to fill it. */
export const GAP = '____'

export type Filled
  = | { ok: true, text: string }
    | {
      ok: false
      holes: Hole[]
      problems: TemplateProblem[]
      /** The text with a gap for each hole; null where something else is wrong. */
      gapped: string | null
    }

/** Fills one template many times; see `fillTemplate`. */
export type Filler = (values: FieldValues, clock: PersonsClock) => Filled

/**
 * Parses once, for filling for many people.
 *
 * @param source Liquid, as stored
 */
export function makeFiller(source: string): Filler {
  const parsed = parseTemplate(source)
  if (!parsed.ok) return () => ({ ok: false, holes: [], problems: parsed.problems, gapped: null })
  const holes: Hole[] = []
  for (const output of outputsOf(parsed.pieces)) watch(output, holes)
  return (values, clock) => {
    holes.length = 0
    return render(parsed.engine, parsed.pieces, values, clock, holes)
  }
}

/**
 * Fills a template with one person's values.
 *
 * @returns the text, or the fields that would have left a hole in it. No text ever has one
 */
export function fillTemplate(source: string, values: FieldValues, clock: PersonsClock): Filled {
  return makeFiller(source)(values, clock)
}

function render(engine: Liquid, pieces: Template[], values: FieldValues, clock: PersonsClock, holes: Hole[]): Filled {
  try {
    const text = String(engine.renderSync(pieces, values, { globals: { clock } }))
    if (holes.length > 0) return { ok: false, holes: [...holes], problems: [], gapped: text }
    if (text.trim() === '')
      return { ok: false, holes: [], problems: [{ line: 1, column: 1, message: 'Nothing is left of the text for this person.' }], gapped: null }
    return { ok: true, text }
  }
  catch (error) {
    const place = (error as { token?: { getPosition(): number[] } }).token?.getPosition() ?? [1, 1]
    return { ok: false, holes: [], problems: [{ line: place[0]!, column: place[1]!, message: renderMessage(error) }], gapped: null }
  }
}

function renderMessage(error: unknown): string {
  const original = (error as { originalError?: Error }).originalError ?? error as Error
  return original instanceof RangeError ? original.message : `This cannot be filled: ${original.message.split(', line:')[0]}.`
}

/**
 * Notes an output that comes out blank; Liquid alone would write nothing and say nothing. An amount that is only written
 * stays as typed; a day or a time of day that is only written is written as the person who is texted would.
 */
function watch(output: Output, holes: Hole[]): void {
  const value = output.value
  const evaluate = value.value.bind(value)
  const [line, column] = output.token.getPosition() as [number, number]
  const amount = value.filters.length === 0 ? /^fill_in\.(\w+)$/.exec(pathOf(output))?.[1] : undefined
  value.value = function* (context: Context, lenient?: boolean) {
    const result: unknown = yield evaluate(context, lenient)
    if (isBlank(result)) {
      holes.push({ path: pathOf(output), line, column })
      return GAP
    }
    const written = (amount && typedIn(context, amount)) ?? result
    return typeof written === 'string' ? asWritten(written, context.getSync(['clock']) as PersonsClock) : written
  } as typeof value.value
}

/** How a value stands in a text to somebody: a day or a time of day as they write it, anything else as it is. */
export function asWritten(value: string, clock: PersonsClock): string {
  return isTimeOfDay(value) ? sayTime(value, clock.format) : isDay(value) ? formatDate(value, 'day', clock) : value
}

function typedIn({ environments }: Context, key: string): string | undefined {
  return valueIn((environments as FieldValues)['fill-in as typed'], key)
}

function pathOf(output: Output): string {
  return output.token.getText().replace(/^\{\{-?\s*|\s*-?\}\}$/g, '').split('|')[0]!.trim()
}

function outputsOf(pieces: Template[]): Output[] {
  return pieces.flatMap(piece => [
    ...(piece instanceof Output ? [piece] : []),
    ...outputsOf(childrenOf(piece)),
  ])
}

/** liquidjs hands out children by a generator that returns them; without partials it never yields. */
function childrenOf(piece: Template): Template[] {
  return piece.children?.(false, true).next().value as Template[] | undefined ?? []
}
