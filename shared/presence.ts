/** A colleague at the same record. */
export interface Looking { colleagueId: string, firstName: string, writing: boolean }
