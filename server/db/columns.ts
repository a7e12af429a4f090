import { customType, timestamp, uuid } from 'drizzle-orm/pg-core'

/** An instant, to the millisecond, as the application makes them. */
export const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 })

/** A UUIDv7 (RFC 9562), made by the application or the browser, never by the database. */
export const id = (name = 'id') => uuid(name)

/** Whatever is no text: a picture, a sound. */
export const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
