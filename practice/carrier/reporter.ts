import { Webhook } from 'standardwebhooks'

const TRIES = 8

/** Reports to the customer over a signed webhook (Standard Webhooks), and tries again until it is taken. */
export class Reporter {
  private readonly webhook: Webhook

  constructor(private readonly url: string, secret: string) {
    this.webhook = new Webhook(secret)
  }

  send(event: { id: string }, afterMs: number, tried = 0): void {
    setTimeout(async () => {
      const body = JSON.stringify(event)
      const now = new Date()
      try {
        const response = await fetch(this.url, {
          method: 'POST',
          body,
          headers: {
            'content-type': 'application/json',
            'webhook-id': event.id,
            'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
            'webhook-signature': this.webhook.sign(event.id, now, body),
          },
          signal: AbortSignal.timeout(5_000),
        })
        if (response.ok) return
      }
      catch {
        // the customer is away; what is never taken can still be fetched from the list of events
      }
      if (tried < TRIES) this.send(event, 250 * 2 ** tried, tried + 1)
    }, afterMs).unref()
  }
}
