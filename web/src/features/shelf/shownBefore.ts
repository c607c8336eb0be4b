const key = 'mortar-shown-before'

/** The layers that were shown before this device was told to show a part of them; null where nothing is to come back. */
export const shownBefore = (): readonly string[] | null => localStorage.getItem(key)?.split(' ') ?? null

/** Of several narrowings in a row the first is kept: what one had before any of them. */
export const keepShownBefore = (shown: readonly string[]) => {
  if (shownBefore() === null && shown.length > 0) localStorage.setItem(key, shown.join(' '))
}

export const forgetShownBefore = () => localStorage.removeItem(key)
