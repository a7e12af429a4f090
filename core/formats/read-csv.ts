import Papa from 'papaparse'

const DELIMITERS = [',', ';', '\t', '|'] as const
export type Delimiter = typeof DELIMITERS[number]

/** A table out of a file: its headings, rows of as many cells, empty ones dropped, and what of the file cannot be right. */
export interface Table { headings: string[], rows: string[][], warnings: string[] }

const LOOKED_AT = 20

/**
 * Reads a CSV file (RFC 4180) however it is delimited, with quoted line breaks. A first line `sep=;`, as
 * some spreadsheets write it, is heard and dropped. Cells are trimmed; an apostrophe that keeps a
 * spreadsheet from reading a formula is taken off.
 *
 * @param headed whether the first row is headings; without it, that is told by what stands there
 */
export function readCsv(text: string, headed?: boolean): Table & { delimiter: Delimiter, headed: boolean } {
  const named = /^sep=(.)\r?\n/.exec(text)
  const body = named ? text.slice(named[0].length) : text
  const delimiter = named && isDelimiter(named[1]!) ? named[1] : guessDelimiter(body)
  const { data, errors } = Papa.parse<string[]>(body, { delimiter, skipEmptyLines: 'greedy' })
  const isHeaded = headed ?? !data[0]?.some(isData)
  const [first, rest] = isHeaded ? [data[0] ?? [], data.slice(1)] : [[], data]
  const width = data.reduce((widest, row) => Math.max(widest, row.length), 0)
  return {
    delimiter,
    headed: isHeaded,
    warnings: errors.some(({ code }) => code === 'MissingQuotes') ? [unclosed(rest.at(-1) ?? first)] : [],
    headings: Array.from({ length: width }, (_, i) => first[i]?.trim() || `Column ${i + 1}`),
    rows: rest.map(row => Array.from({ length: width }, (_, i) => cleanCell(row[i] ?? ''))),
  }
}

const isDelimiter = (one: string): one is Delimiter => (DELIMITERS as readonly string[]).includes(one)

/** Mail addresses and numbers are no headings. */
const isData = (cell: string) => /^[^\s@]+@[^\s@]+$/.test(cell.trim()) || /^[+(]?\d[\d\s()./-]{5,}$/.test(cell.trim())

/** A quotation mark that is never closed takes the rest of the file into its cell. */
const unclosed = (row: string[]) =>
  `A quotation mark is opened and never closed, in the row that begins with “${(row[0] ?? '').trim().slice(0, 40)}”. All that follows it became one cell: put the mark right in the file, and choose it again.`

const cleanCell = (cell: string) => cell.trim().replace(/^'(?=[=@+-])/, '')

/** The one that cuts the first lines into the most cells, and into as many each. */
function guessDelimiter(text: string): Delimiter {
  const start = text.slice(0, 64_000)
  const scored = DELIMITERS.map((delimiter) => {
    const rows = Papa.parse<string[]>(start, { delimiter, preview: LOOKED_AT, skipEmptyLines: 'greedy' }).data
    const widths = rows.map(row => row.length)
    const usual = widths[0] ?? 1
    const like = widths.filter(width => width === usual).length / Math.max(1, widths.length)
    return { delimiter, score: usual > 1 ? usual * like ** 3 : 0 }
  })
  return scored.sort((a, b) => b.score - a.score)[0]!.delimiter
}
