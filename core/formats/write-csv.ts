import Papa from 'papaparse'
import { harmlessCell } from './csv-cell'

/** Rows of a table as CSV (RFC 4180), each with its line break, in cells that no spreadsheet takes for a formula. */
export const writeCsv = (rows: string[][]): string =>
  rows.length === 0 ? '' : `${Papa.unparse(rows.map(row => row.map(harmlessCell)), { newline: '\r\n' })}\r\n`
