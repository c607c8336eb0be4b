const key = 'mortar-letter-keys'

/** Whether a single letter or sign is a key of the wall on this device: whoever speaks what they type wants that otherwise (WCAG 2.2, 2.1.4). */
export const areLettersKeys = (): boolean => localStorage.getItem(key) !== 'off'

export const keepLettersKeys = (are: boolean) =>
  are ? localStorage.removeItem(key) : localStorage.setItem(key, 'off')
