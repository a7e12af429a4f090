import Papa from 'papaparse'

const DELIMITERS = [',', ';', '\t', '|'] as const
export type Delimiter = typeof DELIMITERS[number]

/** A table out of a file: its headings, and rows of as many cells, empty ones dropped. */
export interface Table { headings: string[], rows: string[][] }

const LOOKED_AT = 20

/**
 * Reads a CSV file (RFC 4180) however it is delimited, with quoted line breaks. A first line `sep=;`, as
 * some spreadsheets write it, is heard and dropped. Cells are trimmed; an apostrophe that keeps a
 * spreadsheet from reading a formula is taken off.
 */
export function readCsv(text: string): Table & { delimiter: Delimiter } {
  const named = /^sep=(.)\r?\n/.exec(text)
  const body = named ? text.slice(named[0].length) : text
  const delimiter = named && isDelimiter(named[1]!) ? named[1] : guessDelimiter(body)
  const { data } = Papa.parse<string[]>(body, { delimiter, skipEmptyLines: 'greedy' })
  const [first = [], ...rest] = data
  const width = data.reduce((widest, row) => Math.max(widest, row.length), 0)
  return {
    delimiter,
    headings: Array.from({ length: width }, (_, i) => first[i]?.trim() || `Column ${i + 1}`),
    rows: rest.map(row => Array.from({ length: width }, (_, i) => cleanCell(row[i] ?? ''))),
  }
}

const isDelimiter = (one: string): one is Delimiter => (DELIMITERS as readonly string[]).includes(one)

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
