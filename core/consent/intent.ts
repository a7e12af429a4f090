export type Intent = 'stop' | 'start' | 'help' | 'maybe-stop' | 'none'

/**
 * Words that are an order when they are the whole text, in the languages of the countries served
 * (English; French in Canada; Spanish in the United States; German).
 * English from 47 CFR 64.1200(a)(10) and what carriers understand (common practice, from memory).
 */
const KEYWORDS: Record<'stop' | 'start' | 'help', string[]> = {
  stop: [
    'stop', 'stopall', 'unsubscribe', 'cancel', 'end', 'quit', 'revoke', 'optout',
    'arret', 'arreter', 'arretez', 'desabonner', 'desabonnement', 'desinscrire',
    'alto', 'parar', 'baja', 'cancelar', 'detener', 'nomas',
    'stopp', 'abmelden', 'abbestellen',
  ],
  start: ['start', 'unstop', 'yes', 'optin', 'debut', 'commencer', 'iniciar', 'comenzar', 'anmelden'],
  help: ['help', 'info', 'aide', 'ayuda', 'hilfe'],
}

const intentByKeyword = new Map<string, 'stop' | 'start' | 'help'>(
  Object.entries(KEYWORDS).flatMap(([intent, words]) => words.map(word => [word, intent as 'stop'] as const)),
)

/** Words around a keyword that change nothing about the wish: "ok, STOP please". */
const FILLERS = new Set([
  'please', 'pls', 'plz', 'ok', 'okay', 'thanks', 'thank', 'you', 'thx', 'now', 'just', 'hi', 'hello', 'hey', 'sorry',
  'i', 'said', 'all', 'immediately', 'no', 'merci', 'svp', 'bonjour', 'por', 'favor', 'gracias', 'bitte', 'danke',
])

const ME = '(?:me|us|this (?:number|phone))'
const WRITING
  = '(?:text(?:ing|s)?|messag(?:ing|es?)|sms|contact(?:ing)?|writ(?:e|ing)|send(?:ing)?|spam(?:ming)?|bother(?:ing)?|call(?:ing)?|reach(?:ing)?)'
const TEXTS
  = '(?:(?:of )?(?:your|these|those|this|the|any|ur) )?(?:(?:stupid|damn|promotional|marketing) )?(?:texts?|text messages?|messages?|sms|spam)'

/** Wishes in free words to be left alone; proposed to a person, never taken silently. Apostrophes are gone from the text by then. */
const WISHES: RegExp[] = [
  new RegExp(`\\bstop (?:it )?(?:${WRITING})(?: (?:to )?${ME}\\b| ${TEXTS}\\b|[^a-z]*$| (?:now|please)\\b)`),
  new RegExp(`\\bstop (?:the|these|those|this|all|your|with)(?: (?:the|these|those|this|your))? ?${TEXTS}`),
  new RegExp(`\\b(?:dont|do not|never|quit|please no|cease) (?:ever )?${WRITING} (?:to )?${ME}\\b`),
  /(?:^|[.,;!] ?|\bplease |\bjust |\bnumber )stop it\b[^a-z]*(?:now|please)?[^a-z]*$/,
  new RegExp(
    `\\b(?:dont|do not|never) (?:ever )?(?:send|want|need|wish)(?: to (?:get|receive|have))?(?: ${ME})?(?: (?:any|get|receive))*(?: more)? ?${TEXTS}`,
  ),
  /\b(?:dont|do not|never) (?:want|wish|like) (?:you )?to (?:be (?:texted|contacted|messaged|called)|hear from you|text me|contact me|write to me)\b/,
  new RegExp(`\\bno more(?: of)? ${TEXTS}`),
  new RegExp(`\\b(?:quit|cease) (?:${WRITING} ${ME}|sending)\\b`),
  /\b(?:take|remove|delete|cross|get|drop) (?:me|us|my (?:name|number|phone|details)|this number)\b(?: \w+){0,3} (?:off|from|out)\b/,
  /\b(?:take|get) (?:me|us|my number) off\b/,
  /\b(?:remove|delete) (?:me|my (?:number|details|data))[^a-z]*(?:please[^a-z]*)?$/,
  /\b(?:unsubscribe|opt|sign) (?:me|us) ?(?:out|off)?\b/,
  /\b(?:want|like|wish|need|how (?:do|can) i|let me|going) (?:to )?(?:unsubscribe|opt ?out|be (?:removed|taken off|left alone|unsubscribed))\b/,
  /\bleave (?:me|us) alone\b/,
  /\b(?:lose|forget) (?:my|this) number\b/,
  /\bopting out\b/,
  /\b(?:ne )?m ?ecrivez plus\b|\barrete[zr]? (?:de )?(?:m ?ecrire|m ?envoyer|de me|vos)\b|\bplus (?:de|aucun) (?:textos?|messages?|sms)\b|\bdesabonne[zr]? moi\b|\bne (?:me|m) (?:textez|contactez|envoyez) plus\b/,
  /\bno (?:me|nos) (?:escriban?|manden?|envien?|contacten?|textee?n?)\b.*\bmas\b|\bno mas (?:mensajes|textos|sms)\b|\bdejen? de (?:escribir|mandar|enviar|contactar)(?:me|nos)\b|\bno quiero (?:recibir )?(?:mas )?(?:mensajes|textos|sms)\b/,
  /\bnicht mehr (?:an)?schreiben\b|\bkeine (?:sms|nachrichten|texte) mehr\b|\b(?:schreib|schreiben sie|schreibt) mir (?:bitte )?nicht mehr\b|\bhor(?:en sie|t)? auf\b.*\bschreiben\b/,
]

/** Sentences of the same words that ask for the opposite, or for another hour, not for an end. */
const NOT_WISHES: RegExp[] = [
  /\b(?:dont|do not|never) stop (?:texting|messaging|writing|sending)/,
  new RegExp(`\\b(?:dont|do not|never) ${WRITING} ${ME}(?: \\w+){0,3} (?:before|after|until|till|during|while|when|between|about)\\b`),
  new RegExp(
    `\\b(?:dont|do not|never) ${WRITING} ${ME} (?:at (?:night|work|home)|on (?:my|mon|tues|wednes|thurs|fri|satur|sun|the|week)|in the|there|here)`,
  ),
  new RegExp(
    `\\b(?:why|if you|unless you|did you|didnt you|have you|havent you)\\b[^.!?]*\\b(?:dont|do not|never|stop|stopped) (?:${WRITING})`,
  ),
]

/** Nobody says in more characters than this that they want to be left alone; the expressions above take their time over more. */
export const LONGEST_WISH = 2_000

/**
 * What somebody who answers wants of the texting itself. The first three only where the whole text is
 * the keyword, give or take case, width, blanks, quotes and punctuation; 'maybe-stop' for a wish in free
 * words, which a person decides on; ordinary sentences that hold such words are 'none'.
 */
export function readIntent(text: string): Intent {
  const plain = plainWords(text.slice(0, LONGEST_WISH)).slice(0, LONGEST_WISH)
  const order = intentByKeyword.get(
    text.slice(0, LONGEST_WISH).match(/[\p{Extended_Pictographic}]/u) ? '' : plain.replace(/[^\p{L}\p{N}]/gu, ''),
  )
  if (order) return order
  return wantsOut(plain) ? 'maybe-stop' : 'none'
}

function wantsOut(plain: string): boolean {
  if (isPoliteStop(plain)) return true
  if (NOT_WISHES.some(pattern => pattern.test(plain))) return false
  return WISHES.some(pattern => pattern.test(plain))
}

/** A stop word with nothing but politeness or pictures around it. */
function isPoliteStop(plain: string): boolean {
  const words = plain.replace(/\bopt out\b/g, 'optout').match(/[\p{L}\p{N}]+/gu) ?? []
  const rest = words.filter(word => !FILLERS.has(word))
  return rest.length > 0 && words.length <= 6 && rest.every(word => intentByKeyword.get(word) === 'stop')
}

/** Lower case without accents, width, apostrophes and invisible marks; one blank between words. */
function plainWords(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\p{M}\p{Cf}]/gu, '')
    .toLowerCase()
    .replace(/['’‘`´]/g, '')
    .replace(/[-_/]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
}
