import { array, boolean, number, object, string, type InferType } from 'yup'
import { ALLOWED_HOURS } from '../../core/hours/reachable'
import { markHour } from '../../core/hours/say'
import { COUNTRIES } from '../../core/places/countries'
import { REGIONS } from '../../core/places/regions'
import { day, freshId, line } from './common'

const isPlace = (place: string | null | undefined) => !place || COUNTRIES.includes(place) || place in REGIONS

const place = () => string().test('place', 'There is no such country, state or province. Choose one of the list.', isPlace)

const country = () => string().oneOf(COUNTRIES, 'There is no such country. Choose one of the list.').required('Choose a country.')

const hour = () => number()
  .typeError('Choose an hour.')
  .required('Choose an hour.')
  .min(ALLOWED_HOURS.from, ({ min }) => `Nobody is reached before ${markHour(min)} anywhere. Choose a later hour.`)
  .max(ALLOWED_HOURS.to, ({ max }) => `Nobody is reached after ${markHour(max)} anywhere. Choose an earlier hour.`)
  .test('half', 'Choose a whole or a half hour.', value => value === undefined || Number.isInteger(value * 2))

const window = () => object({ from: hour(), to: hour() })
  .nullable()
  .defined()
  .test('order', 'They end before they begin. Choose a later end.', hours => !hours || hours.from < hours.to)

export const placeParams = object({ place: place().required('Choose a place.') })

/** Hours of a place's own for each weekday, from Sunday on; null for holding to nothing stricter there. */
export const placeHoursForm = object({ week: array(window()).length(7, 'Give the hours of seven days.').nullable().defined() })
export type PlaceHoursForm = InferType<typeof placeHoursForm>

export const countryParams = object({ country: country() })
export const holidaysForm = object({ kept: boolean().required() })

export const closedDayForm = object({
  id: freshId().required(),
  /** Everywhere, where it is null. */
  place: place().nullable().default(null).transform((value: unknown) => value === '' ? null : value),
  day: day().required('Choose a day.'),
  name: line(60).required('Say what day it is, so that whoever has to wait knows why.'),
})
export type ClosedDayForm = InferType<typeof closedDayForm>
