/** A family of dispositions: whether somebody was spoken to. */
export const FAMILIES = ['reached', 'not-reached'] as const
export type Family = typeof FAMILIES[number]

/** The family that a call's outcome suggests first. */
export const familyOf = (outcome: string | null): Family => outcome === 'answered' ? 'reached' : 'not-reached'
