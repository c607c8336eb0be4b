// Adds to a noticeboard what only a browser knows; the page is whole without it.
;(() => {
  const { zone, frame } = document.documentElement.dataset
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone
  if (zone && here && here !== zone) {
    const hours = (of) =>
      new Intl.DateTimeFormat('en', { timeZone: of, dateStyle: 'short', timeStyle: 'short' })
    const now = Date.now()
    // Another name for the same clock is no reason to ask again: half a year on counts too.
    const differs = [now, now + 15778800000].some((at) => hours(zone).format(at) !== hours(here).format(at))
    if (differs) {
      const address = new URL(location.href)
      address.searchParams.set('zone', here)
      location.replace(address)
      return
    }
  }
  for (const button of document.querySelectorAll('[data-print]')) {
    button.hidden = false
    button.addEventListener('click', () => print())
  }
  if (frame !== undefined && parent !== window) {
    const tell = () =>
      parent.postMessage({ noticeboardHeight: document.documentElement.getBoundingClientRect().height }, '*')
    new ResizeObserver(tell).observe(document.body)
    tell()
  }
})()
