import { views } from '../../model/views'
import { areLettersKeys } from '../../reader/letterKeys'
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

/** These leave the desk as it is, so they need not wait until what was written there is saved; undoing waits by itself. */
const goesMeanwhile: ReadonlySet<string> = new Set(['[', ']', '.', 'z'])

/** The wall's keys, each with what it does. */
export function useWallKeys({ at, making, moving, seeking, marks, leaveDesk, group }: Wall) {
  const acts = useActs()
  const keys: Record<string, () => void> = {
    '[': () => at.step(-1),
    ']': () => at.step(1),
    '.': () => at.goTo(at.today),
    n: () => making.placeOn(at.firstHere, ''),
    z: acts.undo,
    l: () => document.querySelector<HTMLElement>('nav[aria-label="Shelf"] button')?.focus(),
    '/': () => at.place({ kind: 'find' }),
    f: seeking.seekForView,
    w: () => at.place({ kind: 'free' }),
    k: () => at.place({ kind: 'clashes' }),
    p: () => at.print(group?.id),
    'Ctrl+p': () => at.print(group?.id),
    '?': () => at.place({ kind: 'keys' }),
    Escape: leaveDesk,
    m: () => {
      if (at.desk?.kind === 'event') moving.takeUpChosen(at.desk.key)
    },
  }
  views.forEach((one, index) => {
    keys[`Alt+${index + 1}`] = () => at.showView(one.value)
  })
  if (marks.count > 0) keys.Delete = () => void marks.deleteAll()
  const isWriting = () => {
    const desk = at.deskNow()
    return desk !== null && writesOn.has(desk.kind)
  }
  const rests = (key: string) => isWriting() && !(goesMeanwhile.has(key) && acts.isUnderWay())
  // Who dictates or slips on keys may have switched off those that are one letter or sign (WCAG 2.2, 2.1.4).
  const isOff = (key: string) => key.length === 1 && !areLettersKeys()
  useKeys(keys, (key) => isOff(key) || (key !== 'Escape' && !key.startsWith('Alt+') && rests(key)))
}
