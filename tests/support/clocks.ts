import type { ClockFormat } from '~~/core/hours/format'
import type { PersonsClock } from '~~/core/template/dates'

export const BRITISH: ClockFormat = { hours: 24, dayFirst: true }
export const AMERICAN: ClockFormat = { hours: 12, dayFirst: false }

export const clockIn = (zone: string, format = BRITISH): PersonsClock => ({ zone, format })
