import type { PersonModule } from '../shared/modules'

/** The first templates of Pannier & Post. */
export const TEMPLATES: { name: string, modules: PersonModule[], body: string, version: number }[] = [
  { name: 'Trial week, first word', modules: ['lead'], version: 3, body: 'Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Thank you for asking about a trial week{% if company.name %} for {{ company.name }}{% endif %}. When may I ring you this week?' },
  { name: 'Trial week starts', modules: ['lead'], version: 2, body: 'Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Your trial week starts on {{ person.trial_day | date: "long" }}. We bring the bikes, show your riders the brakes and stay for the first round. OK for you?' },
  { name: 'Your offer is coming', modules: ['lead', 'client'], version: 1, body: 'Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Your offer comes by mail today. Any question, write here or ring {{ sender.direct_line | default: "us" }}.' },
  { name: 'Sorry I missed you', modules: ['lead', 'client', 'candidate'], version: 4, body: 'Hi {{ person.first_name | default: "there" }}, {{ sender.first_name }} from {{ firm.name }}. I just tried to ring you. When is a good moment?' },
  { name: 'Check-up due', modules: ['client'], version: 2, body: 'Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Your {{ person.bikes | default: "bikes" }} are due for their check-up. Would {{ person.service_day | date: "weekday" }} morning suit you?' },
  { name: 'Lease ends', modules: ['client'], version: 1, body: 'Hi {{ person.first_name }}, your lease{% if company.name %} for {{ company.name }}{% endif %} ends on {{ person.lease_end | date: "long" }}. Shall we talk about the next one? {{ sender.first_name }}, {{ firm.name }}' },
  { name: 'Trial shift', modules: ['candidate'], version: 2, body: 'Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Thank you for applying as a {{ person.role_wanted | default: "rider" }}. Could you come for a trial shift this week? Any morning works.' },
  { name: 'We would like you to start', modules: ['candidate'], version: 1, body: 'Hi {{ person.first_name }}, good news from {{ firm.name }}: we would like you to start on {{ person.available_from | date: "long" }}. May I call you today? {{ sender.first_name }}' },
]
