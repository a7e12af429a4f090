/** A family of dispositions: whether somebody was spoken to. */
export type Family = 'reached' | 'not-reached'

/** The family that a call's outcome suggests first. */
export const familyOf = (outcome: string | null): Family => outcome === 'answered' ? 'reached' : 'not-reached'
