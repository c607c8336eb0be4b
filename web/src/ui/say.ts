/** Says something to whom the page is read aloud, politely and unseen. The latest counts: what is said in between is passed over. */
export function say(sentence: string) {
  const spoken = document.querySelector('[data-news]')
  if (!spoken) return
  spoken.textContent = ''
  requestAnimationFrame(() => {
    spoken.textContent = sentence
  })
}
