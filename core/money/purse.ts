/** What is there in a currency, in whole micro-units. */
export interface Purse {
  /** Paid in advance: nothing leaves that it does not cover. Otherwise there is a bill afterwards, and nothing is stopped. */
  prepaid: boolean
  /** All that was paid in, less all that was spent. */
  balanceMicros: number
  /** What is promised to texts that are on their way. */
  heldMicros: number
}

/** What can still be promised; below nothing where a carrier has taken more than its list says. */
export const leftIn = ({ balanceMicros, heldMicros }: Purse): number => balanceMicros - heldMicros

/** Whether so much may still be promised. */
export const covers = (purse: Purse, micros: number): boolean => !purse.prepaid || leftIn(purse) >= micros
