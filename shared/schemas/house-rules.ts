import { array, number, object, string, type InferType } from 'yup'

/** What the firm sets for everybody. */
export const houseRulesForm = object({
  /** For so long a text waits, in which it can be taken back. */
  takeBackSeconds: number()
    .typeError('Write a number of seconds.')
    .integer('Write whole seconds.')
    .min(0, 'Write 0 or more seconds.')
    .max(60, 'A minute at most: people wait for an answer.')
    .required('Write a number of seconds.'),
  /** After so long what knocks goes on to a stand-in, and after as long again to the lead. */
  knockMinutes: number()
    .typeError('Write a number of minutes.')
    .integer('Write whole minutes.')
    .min(1, 'Give them a minute at least.')
    .max(240, 'Four hours at most: what knocks is urgent.')
    .required('Write a number of minutes.'),
  /** After so long without an answer a conversation knocks at the lead; null: never. */
  waitsMinutes: number()
    .typeError('Write a number of minutes, or nothing.')
    .integer('Write whole minutes.')
    .min(1, 'Write 1 or more minutes, or nothing.')
    .max(7 * 24 * 60, 'A week at most.')
    .nullable()
    .defined(),
  /** To so many people a rep may send a bulk text by themselves; null: to any number. */
  bulkMost: number()
    .typeError('Write a number of people, or nothing.')
    .integer('Write whole people.')
    .min(1, 'Write 1 or more people, or nothing.')
    .max(1_000_000, 'A million at most, or nothing.')
    .nullable()
    .defined(),
  /** Leads with one of these tags are hot. */
  hotTags: array(string().trim().max(40, 'A tag has 40 characters at most.').required())
    .max(20, 'Twenty tags at most.')
    .required(),
})
export type HouseRulesForm = InferType<typeof houseRulesForm>
