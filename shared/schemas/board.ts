import { mixed, object } from 'yup'

const MOST_CARDS = 2_000

/** How many cards of a stage are wanted, where more than the first: `{"<id of the stage>": 80}` as JSON. */
export const boardQuery = object({
  most: mixed<Record<string, number>>(
    (value): value is Record<string, number> =>
      typeof value === 'object'
      && value !== null
      && Object.values(value).every(count => Number.isInteger(count) && Number(count) > 0 && Number(count) <= MOST_CARDS),
  )
    .transform((_, given: unknown) => parsed(given))
    .default({}),
})

function parsed(given: unknown): unknown {
  if (typeof given !== 'string') return given
  try {
    return JSON.parse(given)
  }
  catch {
    return null
  }
}
