import { createEventStream, createRouter, defineEventHandler, setResponseHeader } from 'h3'
import type { MailDrop } from './drop'
import { mailPage } from './page'

/** The page on which one reads what was mailed, and the same for programs. */
export function mailRouter(drop: MailDrop) {
  const router = createRouter()
  router.get('/mail', defineEventHandler((event) => {
    setResponseHeader(event, 'content-type', 'text/html; charset=utf-8')
    setResponseHeader(event, 'content-security-policy', 'default-src \'self\'; img-src data:; frame-ancestors \'none\'')
    return mailPage(drop.mails)
  }))
  router.get('/mail/page.js', defineEventHandler((event) => {
    setResponseHeader(event, 'content-type', 'text/javascript; charset=utf-8')
    // what somebody reads stays where it is: a new mail is shown at the next look, and said at once
    return 'new EventSource("/mail/live").onmessage = () => { document.getElementById("new").hidden = false }'
  }))
  router.get('/mail/api/mails', defineEventHandler(() => drop.mails))
  router.get('/mail/live', defineEventHandler((event) => {
    const stream = createEventStream(event)
    const stop = drop.watch(() => void stream.push('mail'))
    stream.onClosed(stop)
    return stream.send()
  }))
  return router
}
