import { EventEmitter } from 'node:events'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { Journal } from '../carrier/journal'

/** A mail as it came. */
export interface DroppedMail {
  /** Its sender's own name for it: what is delivered again has the same. */
  id: string
  at: number
  from: string
  to: string[]
  subject: string
  text: string
}

/** Nobody looks over more; older ones stay in the file. */
const MOST = 500
const MOST_BYTES = 1_000_000

/** The post of the practice world: an SMTP server that takes every mail and delivers none; what came is shown. */
export class MailDrop {
  /** The newest first. */
  readonly mails: DroppedMail[] = []
  private readonly journal: Journal<DroppedMail>
  private readonly changes = new EventEmitter()

  constructor(folder: string) {
    this.journal = new Journal(folder, mail => this.show(mail))
  }

  /** Listens on this machine alone. */
  listen(port: number): Promise<SMTPServer> {
    const server = new SMTPServer({
      // everything stays on this machine, and nobody has to say who they are
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: MOST_BYTES,
      logger: false,
      onData: (stream, session, done) => {
        void simpleParser(stream).then(async ({ messageId, from, subject, text }) => {
          const mail: DroppedMail = {
            id: messageId ?? '',
            at: Date.now(),
            from: from?.text ?? '',
            to: session.envelope.rcptTo.map(({ address }) => address),
            subject: subject ?? '',
            text: text ?? '',
          }
          await this.journal.append(mail)
          this.show(mail)
          done()
        }).catch(done)
      },
    })
    return new Promise((resolve, reject) => {
      server.once('error', reject)
      server.listen(port, '127.0.0.1', () => {
        // a connection that breaks is its sender's to make anew
        server.off('error', reject).on('error', () => undefined)
        resolve(server)
      })
    })
  }

  /** Calls back when a mail has come; returns how to stop. */
  watch(onChange: () => void): () => void {
    this.changes.on('mail', onChange)
    return () => this.changes.off('mail', onChange)
  }

  private show(mail: DroppedMail): void {
    // a sender that did not hear of its delivery delivers again
    if (mail.id && this.mails.some(({ id }) => id === mail.id)) return
    this.mails.unshift(mail)
    this.mails.length = Math.min(this.mails.length, MOST)
    this.changes.emit('mail')
  }
}
