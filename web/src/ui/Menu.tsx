import {
  cloneElement,
  type KeyboardEvent,
  type ReactElement,
  type ReactNode,
  Suspense,
  use,
  useState,
} from 'react'
import { lazyNamed } from './lazyNamed'
import { MenuContext, type MenuParts } from './menuParts'

const load = () => import('./OpenMenu')
const OpenMenu = lazyNamed(load, 'OpenMenu')

interface MenuProps {
  /** The button that opens it. */
  trigger: ReactElement<Record<string, unknown>>
  children: ReactNode
  side?: 'top' | 'bottom'
}

/** A menu under (or over) the button that opens it. The wall behind it stays usable. */
export function Menu({ trigger, children, side = 'bottom' }: MenuProps) {
  const [isUsed, setUsed] = useState(false)
  const plain = cloneElement(trigger, {
    'aria-haspopup': 'menu',
    'aria-expanded': false,
    onPointerEnter: () => void load(),
    onFocus: () => void load(),
    onClick: () => setUsed(true),
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== 'ArrowDown') return
      event.preventDefault()
      setUsed(true)
    },
  })
  if (!isUsed) return plain
  return (
    <Suspense fallback={plain}>
      <OpenMenu trigger={trigger} side={side}>
        {children}
      </OpenMenu>
    </Suspense>
  )
}

function useParts(): MenuParts {
  const parts = use(MenuContext)
  if (!parts) throw new Error('It is in no menu.')
  return parts
}

export function MenuItem({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
  const { Item } = useParts()
  return (
    <Item
      onSelect={onSelect}
      className="menu-item cursor-pointer rounded-control px-3 py-1.5 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-on-ink"
    >
      {children}
    </Item>
  )
}

export function MenuLabel({ children }: { children: ReactNode }) {
  const { Label } = useParts()
  return <Label className="written px-3 py-1 text-[12px] text-cement-600">{children}</Label>
}

export function MenuLine() {
  const { Separator } = useParts()
  return <Separator className="my-1 h-px bg-cement-200" />
}
