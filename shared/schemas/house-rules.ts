import { number, object, type InferType } from 'yup'

/** What the firm sets for everybody. */
export const houseRulesForm = object({
  /** For so long a text waits, in which it can be taken back. */
  takeBackSeconds: number()
    .typeError('Write a number of seconds.')
    .integer('Write whole seconds.')
    .min(0, 'Write 0 or more seconds.')
    .max(60, 'A minute at most: people wait for an answer.')
    .required('Write a number of seconds.'),
})
export type HouseRulesForm = InferType<typeof houseRulesForm>
