import type { ReactNode } from 'react'
import { Logo } from './Logo'
import { useTitle } from './useTitle'

/** The page before the wall: the name at the left, what is to be done at the right. */
export function Gate({ title, children }: { title: string; children: ReactNode }) {
  useTitle(title)
  return (
    <main className="grid min-h-full bg-cement-50 max-sm:grid-rows-[auto_1fr] sm:grid-cols-[minmax(15rem,2fr)_3fr]">
      <div className="flex flex-col justify-between gap-6 bg-bar p-8 text-on-bar max-sm:p-5">
        <p className="flex items-center gap-3 font-head text-3xl font-bold">
          <Logo size={38} />
          Mortar
        </p>
        <p className="max-w-72 font-head text-xl leading-snug max-sm:hidden">
          Bricks are what people have taken on. Mortar holds them together, and shows the gaps between them.
        </p>
        <Courses />
      </div>
      <div className="flex flex-col px-8 py-10 sm:justify-center sm:px-16">
        <div className="w-full max-w-md">
          <h1 className="mb-5 text-2xl">{title}</h1>
          {children}
        </div>
      </div>
    </main>
  )
}

const courses = [
  { y: 0, widths: [34, 22, 40] },
  { y: 12, widths: [18, 46, 30] },
  { y: 24, widths: [40, 24, 20] },
  { y: 36, widths: [26, 30, 42] },
]

/** Four courses of brick with a gap in them. */
function Courses() {
  return (
    <svg viewBox="0 0 104 46" className="w-full max-w-72 max-sm:hidden" aria-hidden="true">
      {courses.map(({ y, widths }) => {
        let x = 0
        return widths.map((width) => {
          const at = x
          x += width + 2
          const isGap = y === 24 && at === 42
          return (
            <rect
              key={`${y}-${at}`}
              x={at}
              y={y}
              width={width}
              height={10}
              className={isGap ? 'fill-gap' : 'fill-on-bar'}
              opacity={isGap ? 1 : 0.14 + ((y + at) % 5) * 0.035}
            />
          )
        })
      })}
    </svg>
  )
}
