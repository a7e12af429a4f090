import { number, object, string } from 'yup'
import { isDay } from '../../core/conditions/conditions'

/** Yup's own check knows no version 7. */
export const uuid = () => string().matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i, { message: 'This is not an id. Reload the page and try again.', excludeEmptyString: true })
export const byId = object({ id: uuid().required() })

/** A day of the calendar, `2026-12-03`. */
export const day = () => string().matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { message: 'Choose a day.', excludeEmptyString: true })
  .test('calendar', 'The calendar has no such day. Choose another one.', value => !value || isDay(value))

/** A line of text as people type it: trimmed, and never longer than anybody needs. */
export const line = (most: number) => string().trim().max(most, ({ max }) => `That is longer than ${max} characters. Shorten it.`)

/** The same, where a form sends an empty field as null. */
export const optionalLine = (most: number) => line(most).nullable().transform((value: unknown) => value === '' ? null : value).default(null)

export const page = () => number().integer().min(1).max(100_000).default(1)
