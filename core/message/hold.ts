/** `carrier-away` and `broken` are no rules: nobody took it for an hour, or we could not hand it over. */
export type HoldReason
  = | 'opted-out'
    | 'night'
    | 'wish'
    | 'zone-unknown'
    | 'line-closed'
    | 'texting-off'
    | 'late'
    | 'number-unusable'
    | 'no-balance'
    | 'carrier-away'
    | 'broken'

/** Of these a person may say "now": they are about the moment, not about the person or the line. */
export const MAY_BE_LET_GO: readonly HoldReason[] = ['night', 'wish', 'zone-unknown', 'late', 'carrier-away', 'broken']
