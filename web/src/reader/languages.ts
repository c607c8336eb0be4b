/** The languages of dates on offer; any other can be kept as well. */
export const languages: readonly { value: string; label: string }[] = [
  { value: '', label: 'As this page' },
  { value: 'en-GB', label: 'English, day first (en-GB)' },
  { value: 'en-CA', label: 'English, Canada (en-CA)' },
  { value: 'de-DE', label: 'German (de-DE)' },
  { value: 'sv-SE', label: 'Swedish (sv-SE)' },
  { value: 'pl-PL', label: 'Polish (pl-PL)' },
  { value: 'fr-FR', label: 'French (fr-FR)' },
  { value: 'ar-EG', label: 'Arabic (ar-EG)' },
]
