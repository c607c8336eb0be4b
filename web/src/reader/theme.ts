export type Theme = 'system' | 'light' | 'dark'

const key = 'mortar-theme'
const dark = window.matchMedia('(prefers-color-scheme: dark)')

export const themes: readonly { value: Theme; label: string }[] = [
  { value: 'system', label: 'Light or dark as the system has it' },
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
]

/** The theme chosen on this device. */
export const chosenTheme = (): Theme =>
  themes.find((theme) => theme.value === localStorage.getItem(key))?.value ?? 'system'

export function chooseTheme(theme: Theme) {
  localStorage.setItem(key, theme)
  show(theme)
}

/** Shows the chosen theme and follows the system where that was chosen; on paper it is light. */
export function applyTheme() {
  dark.addEventListener('change', () => show())
  window.addEventListener('beforeprint', () => show('light'))
  window.addEventListener('afterprint', () => show())
  show()
}

function show(theme = chosenTheme()) {
  document.documentElement.dataset.theme = theme === 'system' ? (dark.matches ? 'dark' : 'light') : theme
}
