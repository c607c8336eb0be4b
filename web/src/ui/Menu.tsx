import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'

interface MenuProps {
  trigger: ReactNode
  children: ReactNode
  side?: 'top' | 'bottom'
}

/** A menu under (or over) the button that opens it. The wall behind it stays usable. */
export function Menu({ trigger, children, side = 'bottom' }: MenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side={side}
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="z-40 max-h-[70vh] min-w-52 overflow-y-auto rounded-control border border-cement-300 bg-surface p-1 shadow-lg"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

export function MenuItem({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="cursor-pointer rounded-control px-3 py-1.5 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-on-ink"
    >
      {children}
    </DropdownMenu.Item>
  )
}

export function MenuLabel({ children }: { children: ReactNode }) {
  return (
    <DropdownMenu.Label className="written px-3 py-1 text-[12px] text-cement-600">
      {children}
    </DropdownMenu.Label>
  )
}

export function MenuLine() {
  return <DropdownMenu.Separator className="my-1 h-px bg-cement-200" />
}
