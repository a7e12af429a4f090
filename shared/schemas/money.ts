import { boolean, number, object, string, type InferType } from 'yup'
import { LIMIT_PERIODS } from '../../core/money/limit'
import { ENTRY_KINDS, USE_BY } from '../money'
import { freshId, idOf, line } from './common'

const currency = () => string().matches(/^[A-Z]{3}$/, 'Choose a currency.').required('Choose a currency.')

/** More than anybody pays at once; sums stay exact far above it. */
const MOST_MICROS = 1_000_000_000_000

const NO_AMOUNT = 'Write an amount, such as 50 or 12.50.'

const micros = () => number()
  .typeError(NO_AMOUNT)
  .integer('Write an amount with two decimals at most.')
  .moreThan(0, 'Write an amount above nothing.')
  .max(MOST_MICROS, 'A million at most. Is there a point missing?')
  .required(NO_AMOUNT)

/** Something was paid to a carrier. */
export const payInForm = object({ id: freshId().required(), currency: currency(), micros: micros(), words: line(120).default('') })
export type PayInForm = InferType<typeof payInForm>

/** How one currency is paid for. */
export const accountForm = object({
  currency: currency(),
  prepaid: boolean().required(),
  warnDays: number()
    .typeError('Write a number of days.')
    .integer('Write whole days.')
    .min(1, 'Write 1 or more days.')
    .max(90, 'Ninety days at most.')
    .required('Write a number of days.'),
})
export type AccountForm = InferType<typeof accountForm>

export const limitForm = object({
  id: freshId().required(),
  colleagueId: idOf('colleague').nullable().default(null),
  teamId: idOf('team').nullable().default(null),
  period: string().oneOf(LIMIT_PERIODS, 'Choose a day or a month.').required('Choose a day or a month.'),
  currency: currency(),
  micros: micros(),
})
export type LimitForm = InferType<typeof limitForm>

export const askForm = object({ currency: currency(), why: line(300).default('') })
export type AskForm = InferType<typeof askForm>

export const useQuery = object({ by: string().oneOf(USE_BY).required(), since: number().integer().min(0).max(8e15).required() })
export type UseQuery = InferType<typeof useQuery>

export const ledgerQuery = object({
  kind: string().oneOf(ENTRY_KINDS).nullable().default(null),
  /** The last entry of the page before. */
  after: idOf('money-entry').nullable().default(null),
})
export type LedgerQuery = InferType<typeof ledgerQuery>
