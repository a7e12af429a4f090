/** Where colleagues meet. */
export const MEETING_PLACES = ['record', 'conversation'] as const
export interface MeetingPlace { of: typeof MEETING_PLACES[number], id: string }

/** A colleague at the same record, or in the same conversation. */
export interface Looking { colleagueId: string, firstName: string, writing: boolean }
