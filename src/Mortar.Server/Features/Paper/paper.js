// Fits sheets to their paper: smaller type as long as it can be read, then further sheets. Nothing is ever left out.
;(() => {
  const sizes = [10, 9.5, 9, 8.5, 8, 7.5, 7]
  const sizeOfMany = 8
  const most = () => {
    const probe = document.createElement('div')
    probe.style.cssText = 'position:absolute;visibility:hidden;height:var(--h)'
    document.body.append(probe)
    const height = probe.getBoundingClientRect().height
    probe.remove()
    return height
  }
  const paper = most()
  const over = (sheet) => sheet.getBoundingClientRect().height - paper
  const fits = (sheet) => over(sheet) <= 0

  /** Puts a sheet under the one before it, where both were meant to stand together and there is room. */
  function join(sheet) {
    const before = sheet.previousElementSibling
    const part = sheet.querySelector('.part')
    const heading = part?.querySelector('h2')
    if (!before || !heading || before.dataset.joins === undefined || sheet.dataset.joins === undefined) return false
    heading.hidden = false
    before.querySelector('.parts').append(part)
    if (fits(before)) {
      sheet.remove()
      return true
    }
    heading.hidden = true
    sheet.querySelector('.parts').append(part)
    return false
  }

  function fit(sheet) {
    for (const size of sizes) {
      sheet.style.fontSize = `${size}pt`
      if (fits(sheet)) return
    }
    sheet.style.fontSize = `${sizeOfMany}pt`
    let last = sheet
    while (!fits(last)) {
      const next = goOn(last)
      if (!next) return
      last = next
    }
  }

  /** Takes what is below the end of the paper to a further sheet; nothing where that cannot be parted. */
  function goOn(sheet) {
    const body = sheet.querySelector('tbody')
    if (!body) return null
    const end = body.getBoundingClientRect().bottom - over(sheet)
    const rows = [...body.rows]
    const first = rows.findIndex((row) => row.getBoundingClientRect().bottom > end)
    if (first < 0) return null
    delete sheet.dataset.joins
    const next = sheet.cloneNode(true)
    delete next.dataset.fills
    const rest = next.querySelector('tbody')
    rest.replaceChildren()
    // A row of its own sheet that is still too long is torn between what lies in its cells.
    const torn = first === 0 ? tear(rows[0], end) : null
    if (first === 0 && !torn && rows.length === 1) return null
    rest.append(...(torn ? [torn] : []), ...rows.slice(Math.max(first, 1)))
    if (rest.rows.length === 0) return null
    const head = rest.rows[0].querySelector('th')
    if (head && !head.textContent.trim()) {
      const before = rows.slice(0, Math.max(first, 1)).reverse()
      const named = before.map((row) => row.querySelector('th')?.textContent.trim()).find((text) => text)
      head.textContent = named?.endsWith(', continued') ? named : `${named}, continued`
      rest.rows[0].dataset.begins = ''
    }
    sheet.after(next)
    return next
  }

  function tear(row, end) {
    const rest = row.cloneNode(true)
    let moved = false
    ;[...row.cells].forEach((cell, index) => {
      const list = cell.querySelector('ul')
      const other = rest.cells[index]
      if (!list) {
        const words = other.querySelector('.words')
        if (words) words.remove()
        return
      }
      const entries = [...list.children]
      const below = entries.filter((one, at) => at > 0 && one.getBoundingClientRect().bottom > end)
      other.querySelector('ul').replaceChildren(...below)
      if (below.length > 0) moved = true
    })
    const head = rest.querySelector('th')
    if (head && !head.textContent.endsWith(', continued')) head.textContent += ', continued'
    return moved ? rest : null
  }

  for (const sheet of [...document.querySelectorAll('.sheet')]) if (!join(sheet)) fit(sheet)
  const sheets = [...document.querySelectorAll('.sheet')]
  sheets.forEach((sheet, index) => {
    sheet.querySelector('.place').textContent = `Sheet ${index + 1} of ${sheets.length}`
  })

  const scale = () => {
    const width = sheets[0]?.offsetWidth ?? 1
    const room = document.documentElement.clientWidth - 32
    document.documentElement.style.setProperty('--zoom', Math.min(1, room / width).toFixed(4))
  }
  scale()
  addEventListener('resize', scale)
  document.documentElement.dataset.ready = ''
})()
