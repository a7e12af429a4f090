import type { AuditAction, AuditEntry, AuditGroup } from '~~/shared/audit'

export const AUDIT_GROUP_WORDS: Record<AuditGroup, string> = {
  'sign-ins': 'sign-ins',
  'people': 'people and rights',
  'texting': 'texting and its terms',
  'set-up': 'set-up',
  'money': 'money',
  'taken-out': 'what was taken out or heard',
  'many': 'files, bulk texts, groups and rounds',
  'words': 'templates, messages and entries',
}

/** After the name of who did it. */
export const AUDIT_WORDS: Record<AuditAction, string> = {
  'signed-in': 'signed in',
  'signed-out': 'signed out',
  'signed-out-elsewhere': 'signed another browser out',
  'signed-out-everywhere-else': 'signed all other browsers out',
  'sign-in-refused': 'was not let in',
  'password-changed': 'changed their password',
  'second-step-set': 'set up a second step for signing in',
  'second-step-ended': 'ended their second step',
  'recovery-codes-made': 'made recovery codes anew',
  'recovery-code-used': 'signed in with a recovery code',
  'own-phones-changed': 'changed how they call',
  'firm-made': 'began with the firm',
  'invited': 'invited somebody',
  'invited-again': 'made another link for somebody',
  'invitation-withdrawn': 'withdrew a link',
  'joined': 'joined',
  'new-password-offered': 'made a link for a new password',
  'colleague-changed': 'changed a colleague',
  'colleague-left': 'let a colleague go',
  'colleague-back': 'took a colleague on again',
  'second-step-taken-away': 'took somebody’s second step away',
  'team-made': 'made a team',
  'team-renamed': 'renamed a team',
  'right-changed': 'changed a right',
  'line-porting-asked': 'asked again to bring a number over',
  'line-porting-told': 'told how far a number is that is brought over',
  'papers-written': 'wrote on the papers',
  'paper-file-added': 'added a file to the papers',
  'paper-file-removed': 'removed a file from the papers',
  'papers-handed-in': 'handed the papers in',
  'papers-answered': 'told what a carrier says of the papers',
  'texting-switched': 'switched texting',
  'terms-written': 'wrote the terms of use',
  'terms-accepted': 'has read the terms of use',
  'line-made': 'added a line',
  'line-changed': 'changed a line',
  'line-stepped': 'took a step with a line',
  'line-told': 'heard of a line from its carrier',
  'carrier-connected': 'connected a carrier',
  'carrier-changed': 'changed a carrier',
  'carrier-tried': 'tried a carrier',
  'carrier-removed': 'removed a carrier',
  'house-rules-changed': 'changed the house rules',
  'place-hours-set': 'set when people of a place are reached',
  'place-hours-taken-back': 'went back to the law of a place',
  'holidays-set': 'set whether people are reached on holidays',
  'closed-day-added': 'added a day on which nobody is reached',
  'closed-day-removed': 'removed a day on which nobody is reached',
  'field-made': 'made a custom field',
  'field-changed': 'changed a custom field',
  'field-retired': 'retired a custom field',
  'field-taken-up': 'took a custom field up again',
  'fields-ordered': 'ordered custom fields',
  'pipeline-made': 'made a pipeline',
  'pipeline-changed': 'changed a pipeline',
  'pipeline-removed': 'removed a pipeline',
  'disposition-made': 'made a disposition',
  'disposition-changed': 'changed a disposition',
  'disposition-retired': 'retired a disposition',
  'disposition-taken-up': 'took a disposition up again',
  'dispositions-ordered': 'ordered dispositions',
  'job-started-again': 'started again what had got stuck',
  'event-taken-after-all': 'had what was told taken after all',
  'event-let-be': 'let be what could not be taken',
  'money-paid-in': 'added to the balance',
  'money-account-changed': 'changed how something is paid for',
  'money-limit-set': 'set a limit',
  'money-limit-removed': 'removed a limit',
  'money-asked': 'asked for money',
  'exported': 'took records out',
  'timeline-exported': 'took a timeline out',
  'audit-exported': 'took the audit log out',
  'recording-heard': 'listened to a recording',
  'imported': 'brought a file in',
  'import-taken-back': 'took a file back',
  'bulk-made': 'made a bulk text',
  'bulk-started': 'started a bulk text',
  'bulk-pause': 'paused a bulk text',
  'bulk-go-on': 'went on with a bulk text',
  'bulk-stop': 'stopped a bulk text',
  'bulk-done': 'was done with a bulk text',
  'bulk-pace': 'changed the pace of a bulk text',
  'bulk-removed': 'removed a bulk text',
  'bulk-answer-noted': 'noted an answer to a bulk text',
  'group-made': 'made a group',
  'group-changed': 'changed a group',
  'group-removed': 'removed a group',
  'round-made': 'made a call round',
  'round-changed': 'changed a call round',
  'round-turned': 'paused, started or ended a call round',
  'template-retired': 'retired a template',
  'template-restored': 'brought a template back',
  'spoken-made': 'made a spoken message',
  'spoken-changed': 'changed a spoken message',
  'spoken-retired': 'retired a spoken message',
  'message-named': 'named a text',
  'entry-meant': 'said for whom an entry was meant',
  'entry-shown-on': 'showed an entry on another record',
  'entry-taken-off': 'took an entry off a record',
}

/** What it was done to, as it was called then; otherwise as it is called now. */
export const auditAbout = ({ details, what }: Pick<AuditEntry, 'details' | 'what'>): string => {
  const said = ['name', 'title', 'label', 'fileName', 'mail', 'e164', 'key'].map(key => details[key]).find(value => typeof value === 'string')
  return String(said ?? what ?? '')
}

/** What else stands in it, one after the other: what changed as "before → after", all else by its name. */
export function auditDetails({ details: { from, to, ...rest } }: Pick<AuditEntry, 'details'>): { name: string, value: string }[] {
  const changes = isThing(from) && isThing(to)
    ? Object.keys({ ...from, ...to }).filter(key => say(from[key]) !== say(to[key])).map(name => ({ name: inWords(name), value: `${say(from[name])} → ${say(to[name])}` }))
    : from === undefined && to === undefined ? [] : [{ name: 'changed', value: `${say(from)} → ${say(to)}` }]
  return [...changes, ...Object.entries(rest).map(([name, value]) => ({ name: inWords(name), value: say(value) }))]
}

/** "hot tags" of `hotTags`. */
const inWords = (key: string): string => key.replace(/[A-Z]/g, letter => ` ${letter.toLowerCase()}`)

const isThing = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)

const say = (value: unknown): string =>
  value === null || value === undefined || value === ''
    ? 'nothing'
    : typeof value === 'boolean'
      ? (value ? 'yes' : 'no')
      : Array.isArray(value) && value.every(one => typeof one !== 'object')
        ? value.join(', ')
        : typeof value === 'object' ? JSON.stringify(value) : String(value)
