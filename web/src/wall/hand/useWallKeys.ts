import { views } from '../../model/views'
import { useActs } from '../../undo/acts'
import type { DeskPlace } from '../desk/deskPlace'
import type { Wall } from '../useWall'
import { useKeys } from './useKeys'

/** The desks on which something is written: a letter typed there is meant for it, also before a field has the focus. */
const writesOn: ReadonlySet<DeskPlace['kind']> = new Set([
  'writing',
  'calendar',
  'newCalendar',
  'newGroup',
  'ask',
  'propose',
])

/** The wall's keys, each with what it does. */
export function useWallKeys({ at, making, seeking, marks, leaveDesk }: Wall) {
  const acts = useActs()
  const keys: Record<string, () => void> = {
    '[': () => at.goTo(at.period.step(-1)),
    ']': () => at.goTo(at.period.step(1)),
    '.': () => at.goTo(at.today),
    n: () => making.placeOn(at.firstHere, ''),
    z: acts.undo,
    l: () => document.querySelector<HTMLElement>('nav[aria-label="Shelf"] button')?.focus(),
    '/': () => at.place({ kind: 'find' }),
    f: seeking.seekForView,
    w: () => at.place({ kind: 'free' }),
    k: () => at.place({ kind: 'clashes' }),
    '?': () => at.place({ kind: 'keys' }),
    Escape: leaveDesk,
  }
  views.forEach((one, index) => {
    keys[`Alt+${index + 1}`] = () => at.showView(one.value)
  })
  if (marks.count > 0) keys.Delete = () => void marks.deleteAll()
  useKeys(at.desk && writesOn.has(at.desk.kind) ? besideWriting(keys) : keys)
}

const besideWriting = (keys: Readonly<Record<string, () => void>>) =>
  Object.fromEntries(Object.entries(keys).filter(([key]) => key === 'Escape' || key.startsWith('Alt+')))
