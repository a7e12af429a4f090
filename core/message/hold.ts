/** `carrier-away` and `broken` are no rules: nobody took it for an hour, or we could not hand it over. */
export type HoldReason
  = | 'opted-out'
    | 'night'
    | 'closed-day'
    | 'place-hours'
    | 'wish'
    | 'zone-unknown'
    | 'line-closed'
    | 'texting-off'
    | 'late'
    | 'number-unusable'
    | 'no-balance'
    | 'carrier-away'
    | 'broken'

/** What has to do with the hour alone. */
export const FOR_THE_HOUR = ['night', 'closed-day', 'place-hours', 'wish', 'zone-unknown'] as const satisfies HoldReason[]

/** Of these a person may say "now": they are about the moment, not about the person or the line. */
export const MAY_BE_LET_GO: readonly HoldReason[] = [...FOR_THE_HOUR, 'late', 'carrier-away', 'broken']
