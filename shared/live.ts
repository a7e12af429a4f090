import type { MeetingPlace } from './presence'
import type { TimelineEntry } from './timeline'

/**
 * What the server tells a browser: that something changed. The browser fetches what is on screen; only an entry of a
 * record that it has open comes along with its notice, as it is now.
 */
export type Notice
  = | { kind: 'entry', recordId: string, activityId: string, entry?: TimelineEntry }
    | { kind: 'record', recordId: string }
    | { kind: 'conversation', conversationId: string, incoming?: boolean }
    | { kind: 'seen', conversationId: string }
    | { kind: 'presence', place: MeetingPlace }
    | { kind: 'call', callId: string }
    | { kind: 'task', recordId: string }
    | { kind: 'round', roundId: string }
    | { kind: 'knock' }
    | { kind: 'money' }
    | { kind: 'terms' }
    | { kind: 'lines' }
    | { kind: 'papers' }
    | { kind: 'carriers' }
    | { kind: 'bulk-text', bulkId: string }
    | { kind: 'group', groupId: string, removed?: true }
