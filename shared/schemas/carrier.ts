import { boolean, number, object, string, type InferType, type ObjectSchema } from 'yup'
import { BINDS, CARRIER_KINDS, LONG_TEXTS, type CarrierSettings, type HttpSettings, type SmppSettings } from '../carriers'
import { freshId, idOf, line } from './common'

/** Characters that nobody sees, as they come with what is copied from a mail: of no width, and the ends of lines. */
const INVISIBLE = /[\u00AD\u200B-\u200F\u2028\u2029\u2060\uFEFF\p{Cc}]/u

/** What is copied from elsewhere is pointed at rather than mended: the space may belong to it. */
const copied = (what: string, most: number, whose = 'SMPP') =>
  string()
    .test('invisible', `There is a character in ${what} that cannot be seen. Type it, or copy it without what stands beside it.`, value => !value || !INVISIBLE.test(value))
    .test('ends', `There is a space before or behind ${what}. Take it out.`, value => !value || value === value.trim())
    .max(most, `${whose} takes ${most} characters at most here.`)

const smppForm: ObjectSchema<SmppSettings> = object({
  host: copied('the host', 253)
    .required('Write where the SMS centre is, such as smsc.example.')
    .matches(/^\s*[^\s/:@]+\s*$/, { message: 'Write the host alone, without a port, a slash or a name before it.', excludeEmptyString: true }),
  port: number().typeError('Write a number.').integer('Write a whole number.').min(1, 'Ports begin with 1.').max(65_535, 'Ports end with 65535.')
    .required('Write the port, often 2775.').default(2775),
  tls: boolean().required().default(true),
  // with the octet that ends them 16, 9 and 13 (SMPP 3.4, 4.1.1)
  systemId: copied('the system id', 15).required('Write the system id that the carrier has given you.'),
  systemType: copied('the system type', 12).default(''),
  bind: string().oneOf(BINDS).required().default('transceiver'),
  longTexts: string().oneOf(LONG_TEXTS).required().default('header'),
  window: number().typeError('Write a number.').integer('Write a whole number.').min(1, 'At least one.').max(100, 'At most 100.').required().default(10),
})

/** An address is written in whole; only on this machine does one go without TLS, by which nobody in between reads along. */
const isSafeAddress = (typed: string | undefined) => {
  if (!typed || !URL.canParse(typed)) return !typed
  const { protocol, hostname, username } = new URL(typed)
  return username === '' && (protocol === 'https:' || (protocol === 'http:' && ['127.0.0.1', 'localhost', '[::1]'].includes(hostname)))
}

const httpForm: ObjectSchema<HttpSettings> = object({
  url: copied('the address', 500, 'An address')
    .required('Write the address at which the gateway takes texts.')
    .test('address', 'Write a whole address, such as https://gateway.example/plauder. Without TLS only one on this machine will do.', isSafeAddress),
})

/** 24 to 64 bytes in base64, behind a prefix, as the Standard Webhooks specification has them. */
const SIGNING_SECRET = /^whsec_(?:[A-Za-z0-9+/]{4}){8,21}(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$/
const signingSecret = () => copied('the secret', 120, 'A secret').matches(SIGNING_SECRET, {
  message: 'A secret begins with whsec_, with 24 to 64 bytes in base64 behind it. Copy it whole, or make one.', excludeEmptyString: true,
})
const password = () => copied('the password', 8)

export const carrierForm = object({
  kind: string().oneOf(CARRIER_KINDS).required(),
  title: line(60).required('Give it a name, by which colleagues tell it from others.'),
  settings: (smppForm as unknown as ObjectSchema<CarrierSettings>).required()
    .when('kind', { is: 'http', then: () => httpForm as unknown as ObjectSchema<CarrierSettings> }),
  /** Left out, the one that is kept stays. */
  secret: password().nullable().default(null).when('kind', { is: 'http', then: () => signingSecret().nullable().default(null) }),
})
export type CarrierForm = InferType<typeof carrierForm>

export const makeCarrierForm = carrierForm.shape({
  id: freshId().required(),
  secret: password().required('Write the password.').when('kind', { is: 'http', then: () => signingSecret().required('Write the secret, or make one.') }),
})
export type MakeCarrierForm = InferType<typeof makeCarrierForm>

/** What is tried before it is kept; `id` of one that is there, whose password is used where none is written. */
export const tryCarrierForm = carrierForm.shape({ id: idOf('carrier').nullable().default(null) })
export type TryCarrierForm = InferType<typeof tryCarrierForm>
