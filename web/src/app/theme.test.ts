import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

/** The colours as theme.css has them, held against WCAG 2.2, 1.4.3 (4.5 : 1 for text). */
const css = readFileSync(new URL('theme.css', import.meta.url), 'utf8')

type Colour = [lightness: number, chroma: number, hue: number]

/** OKLCH to linear sRGB (matrices of the CSS Color 4 specification, section 10; from memory), then relative luminance. */
function luminance([lightness, chroma, hue]: Colour): number {
  const a = chroma * Math.cos((hue * Math.PI) / 180)
  const b = chroma * Math.sin((hue * Math.PI) / 180)
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3
  const red = 4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s
  const green = -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s
  const blue = -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s
  const clamp = (value: number) => Math.min(1, Math.max(0, value))
  return 0.2126 * clamp(red) + 0.7152 * clamp(green) + 0.0722 * clamp(blue)
}

function contrast(one: Colour, other: Colour): number {
  const [dark, light] = [luminance(one), luminance(other)].sort((x, y) => x - y)
  return ((light ?? 0) + 0.05) / ((dark ?? 0) + 0.05)
}

const block = (selector: string) => {
  const start = css.indexOf(`${selector} {`)
  return css.slice(start, css.indexOf('}', start))
}

function colour(text: string, name: string, hue = 0): Colour {
  const found = new RegExp(`--${name}: oklch\\(([\\d.]+) ([\\d.]+) (var\\(--hue\\)|[\\d.]+)\\)`).exec(text)
  if (!found) throw new Error(`theme.css has no --${name} here.`)
  return [Number(found[1]), Number(found[2]), found[3] === 'var(--hue)' ? hue : Number(found[3])]
}

const hues = [...css.matchAll(/\[data-hue="(\w+)"\]\s*\{\s*--hue: (\d+);/g)].map(([, name, hue]) => ({
  name,
  hue: Number(hue),
}))
const themes = [
  { theme: 'light', surfaces: block('@theme'), layers: block('\n[data-hue]') },
  {
    theme: 'dark',
    surfaces: block(':root[data-theme="dark"]'),
    layers: block(':root[data-theme="dark"] [data-hue]'),
  },
]

it('there are twelve hues, none nearer to another than 20 degrees', () => {
  const angles = hues.map(({ hue }) => hue).sort((a, b) => a - b)
  expect(angles).toHaveLength(12)
  for (const [index, angle] of angles.entries()) {
    const next = angles[(index + 1) % angles.length] ?? 0
    expect((next - angle + 360) % 360).toBeGreaterThanOrEqual(20)
  }
})

describe.each(themes)('in the $theme theme', ({ surfaces, layers }) => {
  it.each(hues)('text on a brick of $name can be read', ({ hue }) => {
    expect(
      contrast(colour(layers, 'layer-text', hue), colour(layers, 'layer-tint', hue)),
    ).toBeGreaterThanOrEqual(4.5)
  })

  it.each(hues)('the mark on the edge of $name can be told (WCAG 2.2, 1.4.11: 3 : 1)', ({ hue }) => {
    expect(
      contrast(colour(surfaces, 'color-surface'), colour(layers, 'layer-edge', hue)),
    ).toBeGreaterThanOrEqual(3)
  })

  it.each([
    ['color-ink', 'color-surface'],
    ['color-ink', 'color-cement-100'],
    ['color-cement-700', 'color-cement-50'],
    ['color-cement-600', 'color-cement-50'],
    ['color-clash', 'color-surface'],
    ['color-on-ink', 'color-ink'],
    ['color-on-bar', 'color-bar'],
  ])('%s on %s can be read', (text, ground) => {
    expect(contrast(colour(surfaces, text), colour(surfaces, ground))).toBeGreaterThanOrEqual(4.5)
  })
})
