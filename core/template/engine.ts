import { Liquid, filters, type FilterImplOptions } from 'liquidjs'
import { formatDate, type PersonsClock } from './dates'

/**
 * Limits of one template. Generous for any text that a telephone takes, small enough to hurt nobody: without loops, what it costs
 * is bounded by its pieces. No clock is asked, so that the same template always comes out the same.
 */
export const TEMPLATE_LIMITS = {
  /** Characters of the template itself. */
  length: 5_000,
  /** Tags inside of tags. */
  nesting: 10,
  /** Tags and outputs altogether. */
  pieces: 300,
  /** liquidjs's own count of what rendering allocates. */
  memory: 200_000,
}

/** Conditions only: the fields hold no lists to loop over, and nothing is included from elsewhere. */
const ALLOWED_TAGS = ['if', 'unless', 'case', 'comment', 'raw'] as const
const ALLOWED_FILTERS = [
  'default',
  'upcase',
  'downcase',
  'capitalize',
  'strip',
  'truncate',
  'truncatewords',
  'first_word',
  'date',
  'money',
] as const
export const TEMPLATE_FILTERS: readonly string[] = ALLOWED_FILTERS

const OWN_FILTERS: Record<string, FilterImplOptions> = {
  date(this: { context: { getSync(path: string[]): unknown } }, value: unknown, format: unknown = 'day') {
    if (isBlank(value)) return ''
    return formatDate(value, String(format), this.context.getSync(['clock']) as PersonsClock)
  },
  /** The first given name where a field holds several. */
  first_word: (value: unknown) =>
    String(value ?? '')
      .trim()
      .split(/\s+/)[0] ?? '',
  money: (value: unknown) =>
    isBlank(value) || Number.isNaN(Number(value)) ? '' : (Number.isInteger(Number(value)) ? WHOLE : CENTS).format(Number(value)),
}

/** Made once: making one takes a hundred times as long as using it. */
const WHOLE = new Intl.NumberFormat('en-US', { maximumFractionDigits: 0 })
const CENTS = new Intl.NumberFormat('en-US', { minimumFractionDigits: 2, maximumFractionDigits: 2 })

/** What would leave a hole in a sentence. */
export function isBlank(value: unknown): boolean {
  return value === null || value === undefined || value === false || String(value).trim() === ''
}

/** liquidjs with nothing in it but what Plauder allows. */
export function makeEngine(): Liquid {
  const engine = new Liquid({
    strictFilters: true,
    ownPropertyOnly: true,
    parseLimit: TEMPLATE_LIMITS.length,
    memoryLimit: TEMPLATE_LIMITS.memory,
    cache: false,
  })
  const allowedTags: readonly string[] = ALLOWED_TAGS
  for (const name of Object.keys(engine.tags)) if (!allowedTags.includes(name)) Reflect.deleteProperty(engine.tags, name)
  for (const name of Object.keys(engine.filters)) Reflect.deleteProperty(engine.filters, name)
  for (const name of ALLOWED_FILTERS)
    engine.registerFilter(name, OWN_FILTERS[name] ?? (filters[name as keyof typeof filters] as FilterImplOptions))
  return engine
}
