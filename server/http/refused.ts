import type { Socket } from 'node:net'

const KINDS: Record<string, { status: number, reason: string, type: string, title: string, detail: string }> = {
  HPE_HEADER_OVERFLOW: {
    status: 431,
    reason: 'Request Header Fields Too Large',
    type: 'headers-too-large',
    title: 'Headers too large',
    detail: 'The headers of this request are too long. Delete the cookies of this place and load the page again.',
  },
  ERR_HTTP_REQUEST_TIMEOUT: {
    status: 408,
    reason: 'Request Timeout',
    type: 'too-slow',
    title: 'Too slow',
    detail: 'The request took too long to come in. Send it again.',
  },
}
const OTHER = {
  status: 400,
  reason: 'Bad Request',
  type: 'bad-request',
  title: 'No request',
  detail: 'This is no request that can be read.',
}

/** What never became a request is answered as problem details too (RFC 9457). */
export function answerRefused(error: Error & { code?: string }, socket: Socket): void {
  if (error.code === 'ECONNRESET' || !socket.writable) {
    socket.destroy()
    return
  }
  const { reason, ...details } = KINDS[error.code ?? ''] ?? OTHER
  const body = JSON.stringify(details)
  socket.end(
    `HTTP/1.1 ${details.status} ${reason}\r\nConnection: close\r\nCache-Control: no-store\r\nContent-Type: application/problem+json\r\nContent-Length: ${Buffer.byteLength(body)}\r\n\r\n${body}`,
  )
}
