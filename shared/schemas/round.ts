import { number, object, string, type InferType } from 'yup'
import { ROUND_STATES, STANDINGS } from '../../core/call/round'
import { ROUND_ORDERS } from '../rounds'
import { freshId, idOf, line, page } from './common'
import { whom } from './list'

export const roundSelectionForm = object({
  ...whom,
  notWithinHours: number()
    .integer()
    .min(1)
    .max(24 * 90)
    .default(24),
})
export type RoundSelectionForm = InferType<typeof roundSelectionForm>

/** How a round goes; can be changed while it is worked. */
const manner = {
  name: line(80).required('Give the round a name.'),
  order: string().oneOf(ROUND_ORDERS).default('list'),
  /** Left out: the next is dialled by key. */
  pauseSeconds: number().integer().min(0).max(120, 'Wait two minutes at most.').nullable().default(null),
  notWithinHours: number()
    .typeError('Write a number of hours.')
    .integer('Write whole hours.')
    .min(1, 'At least an hour lies between two calls to one person.')
    .max(24 * 90, 'At most 90 days.')
    .default(24),
}

export const roundForm = object({
  /** Made by the browser: making the same again gives the first round. */
  id: freshId().required(),
  ...whom,
  /** The team that works it; none: I alone. */
  teamId: idOf('team').nullable().default(null),
  ...manner,
})
export type RoundForm = InferType<typeof roundForm>

export const roundMannerForm = object(manner)
export type RoundMannerForm = InferType<typeof roundMannerForm>

export const roundStateForm = object({ state: string().oneOf(ROUND_STATES).required() })

/** What a person says of somebody in a round. */
export const SAYINGS = ['skip', 'later', 'again'] as const
export const roundPersonForm = object({ say: string().oneOf(SAYINGS).required() })
export type Saying = typeof SAYINGS[number]

export const roundPeopleQuery = object({ state: string().oneOf(STANDINGS).nullable().default(null), page: page() })
export type RoundPeopleQuery = InferType<typeof roundPeopleQuery>
