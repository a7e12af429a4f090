import { boolean, number, object, string, type InferType } from 'yup'
import { TEXTED_MODULES } from '../modules'
import { freshId, idOf, line, page } from './common'

export const groupForm = object({
  /** Made by the browser: saving under the same id changes the group. */
  id: freshId().required(),
  name: line(60).required('Give the group a name.'),
  /** Of whom its rule asks; none: people are put in by hand. */
  module: string().oneOf(TEXTED_MODULES).nullable().default(null),
  /** Conditions as JSON; read against the columns of the module. */
  where: string().max(8_000, 'These are more conditions than a rule takes.').default(''),
})
export type GroupForm = InferType<typeof groupForm>

/** Puts somebody in, or takes them out. */
export const groupPersonForm = object({ recordId: idOf('record').required(), in: boolean().required() })

export const groupPeopleQuery = object({ words: line(100).default(''), page: page() })
export type GroupPeopleQuery = InferType<typeof groupPeopleQuery>

/** Where an earlier page has ended, in epoch milliseconds and with the id of its last item; left out, it begins with the newest. */
export const groupFeedQuery = object({
  beforeAt: number().integer().min(0).max(8.64e15).nullable().default(null),
  beforeId: string().uuid().nullable().default(null),
})
export type GroupFeedQuery = InferType<typeof groupFeedQuery>
