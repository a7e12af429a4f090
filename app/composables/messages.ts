import { useLocalStorage } from '@vueuse/core'
import { showRef } from '~~/core/message/ref'
import type { MessageState } from '~~/core/message/states'
import { STATE_WORDS } from '~~/core/message/words'
import { sayMoney } from '~~/core/numbers/money'
import { showPhone } from '~~/core/phone/show'
import { MESSAGE_COLUMNS, type MessageColumn } from '~~/shared/schemas/timeline'
import type { TimelineEntry } from '~~/shared/timeline'

export interface MessageColumnShown { key: MessageColumn, label: string, figures?: boolean, of: (entry: TimelineEntry) => string }

/** What a row of texts can show; the time is the table's own, by the reader's clock. */
export function messageColumns(person: string, when: (at: number) => string): MessageColumnShown[] {
  const of = (entry: TimelineEntry) => entry.message!
  const columns: Record<MessageColumn, Omit<MessageColumnShown, 'key'>> = {
    at: { label: 'When', of: ({ at }) => when(at), figures: true },
    way: { label: 'Way', of: entry => of(entry).direction === 'out' ? 'out' : 'in' },
    who: { label: 'From', of: entry => of(entry).direction === 'in' ? entry.via?.name ?? person : entry.colleague?.firstName ?? 'Plauder' },
    words: { label: 'Words', of: ({ words }) => words ?? '' },
    name: { label: 'Name', of: entry => of(entry).name ?? of(entry).template?.name ?? '' },
    state: { label: 'State', of: entry => of(entry).direction === 'in' ? 'Received' : STATE_WORDS[of(entry).state as MessageState] },
    number: { label: 'Number', of: entry => showPhone(of(entry).remote, true), figures: true },
    line: { label: 'Line', of: entry => of(entry).line.name },
    template: { label: 'Template', of: entry => of(entry).template ? `${of(entry).template!.name} (v${of(entry).template!.version})` : '' },
    parts: { label: 'Parts', of: entry => String(of(entry).parts), figures: true },
    cost: {
      label: 'Cost',
      of: entry => of(entry).costMicros !== null && of(entry).currency ? sayMoney({ micros: of(entry).costMicros!, currency: of(entry).currency! }) : '',
      figures: true,
    },
    ref: { label: 'Ref', of: entry => of(entry).ref ? showRef(of(entry).ref!) : '' },
  }
  return MESSAGE_COLUMNS.map(key => ({ key, ...columns[key] }))
}

/** Which columns I have chosen, kept in this browser. */
export const useMessageColumns = () => useLocalStorage<MessageColumn[]>('plauder-message-columns', ['at', 'who', 'words', 'name', 'state', 'line'])
