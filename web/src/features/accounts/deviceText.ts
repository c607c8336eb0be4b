const systems: readonly [RegExp, string][] = [
  [/iPhone/, 'a phone'],
  [/iPad/, 'a tablet'],
  [/Android.*Mobile/, 'a phone'],
  [/Android/, 'a tablet'],
  [/Windows/, 'a computer with Windows'],
  [/Mac OS X|Macintosh/, 'a computer with macOS'],
  [/CrOS|Linux|X11/, 'a computer with Linux'],
]

/** A device by what its browser says it is: enough to know one's own, and no more is claimed. */
export function deviceText(agent: string): string {
  return systems.find(([sign]) => sign.test(agent))?.[1] ?? 'a device that does not say what it is'
}
