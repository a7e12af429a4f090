import { array, mixed, number, object, string, type InferType } from 'yup'
import { ON_DUPLICATE } from '../../core/import/fate'
import { MOST_COLUMNS, MOST_ROWS, PIECE_ROWS } from '../import'
import { MODULES } from '../modules'
import { freshId, idOf, line } from './common'

const onDuplicate = () => string().oneOf(ON_DUPLICATE).required()

export const importForm = object({
  /** Made by the browser, so that sending it twice begins one. */
  id: freshId().required(),
  module: string().oneOf(MODULES).required(),
  fileName: line(200).required(),
  headings: array(string().max(200).defined())
    .min(1, 'The file has no columns.')
    .max(MOST_COLUMNS, ({ max }) => `A file has ${max} columns at most.`)
    .required(),
  total: number()
    .integer()
    .min(1, 'There is no row in the file.')
    .max(MOST_ROWS, ({ max }) => `A file has ${max.toLocaleString('en-US')} rows at most. Bring it in as several.`)
    .required(),
  rules: object({
    matching: array(string().max(80).nullable().defined()).max(MOST_COLUMNS).required(),
    country: string()
      .matches(/^[A-Z]{2}$/, 'Choose a country.')
      .required(),
    dayOrders: array(
      string()
        .oneOf(['day-first', 'month-first'] as const)
        .nullable()
        .defined(),
    )
      .max(MOST_COLUMNS)
      .required(),
    duplicates: object({ number: onDuplicate(), mail: onDuplicate(), name: onDuplicate() }).required(),
    ownerId: idOf('colleague').required('Choose whose they are.'),
  }).required(),
})
export type ImportForm = InferType<typeof importForm>

const PIECES_AT_ONCE = 40
const LONGEST_CELL = 20_000

const isRow = (row: unknown): row is string[] =>
  Array.isArray(row) && row.length <= MOST_COLUMNS && row.every(cell => typeof cell === 'string' && cell.length <= LONGEST_CELL)

/** Cells are checked by hand: a schema asked a million times would keep everybody waiting. */
export const rowsForm = object({
  /** Place of the first piece among all of the file. */
  place: number()
    .integer()
    .min(0)
    .max(MOST_ROWS / PIECE_ROWS)
    .required(),
  rows: mixed<string[][]>(
    (rows): rows is string[][] => Array.isArray(rows) && rows.length > 0 && rows.length <= PIECES_AT_ONCE * PIECE_ROWS && rows.every(isRow),
  ).required(),
})
export type RowsForm = InferType<typeof rowsForm>

const some = (most: number) => array(string().max(4_000).required()).max(most).default([])

/** Whom numbers, mail addresses and names belong to, and which rows were brought in before. */
export const lookUpForm = object({
  module: string().oneOf(MODULES).required(),
  numbers: some(3_000),
  mails: some(1_000),
  names: some(1_000),
  companies: some(1_000),
  owners: some(1_000),
  /** Of numbers by which somebody is called, and that name none. */
  country: string().matches(/^[A-Z]{2}$/).default('US'),
  people: some(5_000),
  matters: some(1_000),
  /** What rows say, in the one form of `rowKey`. */
  keys: array(string().max(200_000).required()).max(1_000).default([]),
})
export type LookUpForm = InferType<typeof lookUpForm>
