/*
 * Nobody is thrown to the top of the page because what they were on is gone (WCAG 2.2, 2.4.3): closed, saved, answered, taken
 * off, or drawn anew elsewhere. One place sees to it for all of them. It remembers, part of the page by part, where the focus
 * was and what stood around that; when what has the focus goes, the part that was used last before and is still there has it.
 */

/** Parts of a page that one goes to and comes back from. */
const parts = 'aside, [role="dialog"], [role="alertdialog"], [role="menu"], header, nav, main, body'

/** What can be turned to because something beside it is gone; a field is not, since the next key would be written into it. */
const reachable =
  'a[href], button:not(:disabled), summary, [tabindex="0"], input[type="checkbox"], input[type="radio"]'

interface Spot {
  element: HTMLElement
  /** The brick it is, which is drawn anew where it is moved to. */
  brick: string | undefined
  /** From itself up to its part: what stood after it and before it. */
  around: { after: Element[]; before: Element[] }[]
}

/** The spots of the parts, the one used last at the end. */
const spots = new Map<Element, Spot>()

/** Whether the focus is somewhere, or was until what had it went. */
let isUsed = false

export function keepFocus() {
  document.addEventListener('focusin', (event) => {
    if (event.target instanceof HTMLElement && event.target !== document.body) remember(event.target)
  })
  document.addEventListener('focusout', ({ target, relatedTarget }) => {
    // Somebody who presses an empty place has left it themselves; what is taken out of the page is not there any more by then.
    if (relatedTarget === null)
      queueMicrotask(() => {
        if (target instanceof Node && target.isConnected && isNowhere()) isUsed = false
      })
  })
  new MutationObserver(() => {
    if (isUsed && isNowhere()) giveBack()
  }).observe(document.body, { childList: true, subtree: true })
}

const isNowhere = () => document.activeElement === null || document.activeElement === document.body

function remember(element: HTMLElement) {
  isUsed = true
  const part = element.closest(parts) ?? document.body
  spots.delete(part)
  spots.set(part, { element, brick: element.dataset.brick, around: aroundOf(element, part) })
}

function aroundOf(element: Element, part: Element): Spot['around'] {
  const around: Spot['around'] = []
  for (let at: Element = element; at !== part && at.parentElement; at = at.parentElement) {
    const [after, before]: [Element[], Element[]] = [[], []]
    for (let next = at.nextElementSibling; next && after.length < 3; next = next.nextElementSibling)
      after.push(next)
    for (let last = at.previousElementSibling; last && before.length < 3; last = last.previousElementSibling)
      before.push(last)
    around.push({ after, before })
  }
  return around
}

function giveBack() {
  for (const [part, spot] of [...spots].reverse()) {
    if (!part.isConnected) {
      spots.delete(part)
      continue
    }
    const target = targetOf(spot)
    if (target) {
      target.focus({ preventScroll: true })
      return
    }
  }
  // While there is no page it is waited for.
  turnTo(document.querySelector<HTMLElement>('main h1') ?? document.querySelector<HTMLElement>('main'))
}

function targetOf({ element, brick, around }: Spot): HTMLElement | null {
  const again = brick
    ? document.querySelector<HTMLElement>(`[data-brick="${CSS.escape(brick)}"]:not([data-hand])`)
    : null
  for (const one of [element, again]) if (one && canHave(one)) return one
  for (const { after, before } of around)
    for (const beside of [...after, ...before])
      if (beside.isConnected) {
        const found = [beside, ...beside.querySelectorAll<HTMLElement>(reachable)].find(
          (one): one is HTMLElement => one instanceof HTMLElement && one.matches(reachable) && canHave(one),
        )
        if (found) return found
      }
  return null
}

const canHave = (one: HTMLElement): boolean =>
  one.isConnected &&
  one.closest('[inert]') === null &&
  !one.matches(':disabled') &&
  one.checkVisibility({ visibilityProperty: true })

/** To what the page is for, past the bar over it. */
export const toMain = () => turnTo(document.querySelector<HTMLElement>('main'))

function turnTo(target: HTMLElement | null) {
  if (!target) return
  if (target.tabIndex < 0) target.tabIndex = -1
  target.focus({ preventScroll: true })
}
