/** What the server tells a browser: that something changed, never what. The browser fetches what is on screen. */
export type Notice
  = | { kind: 'entry', recordId: string, activityId: string }
    | { kind: 'record', recordId: string }
    | { kind: 'conversation', conversationId: string, incoming?: boolean }
    | { kind: 'presence', recordId: string }
    | { kind: 'call', callId: string }
    | { kind: 'task', recordId: string }
    | { kind: 'round', roundId: string }
