import { DropdownMenu } from 'radix-ui'
import type { ReactElement, ReactNode } from 'react'
import { MenuContext } from './menuParts'

/** A menu that was opened: from then on it is opened and closed by itself. */
export function OpenMenu({
  trigger,
  side,
  children,
}: {
  trigger: ReactElement
  side: 'top' | 'bottom'
  children: ReactNode
}) {
  return (
    <MenuContext value={DropdownMenu}>
      <DropdownMenu.Root modal={false} defaultOpen>
        <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            side={side}
            align="start"
            sideOffset={4}
            collisionPadding={8}
            // What an item led to may have the focus by now; else the button has it again.
            onCloseAutoFocus={(event) => {
              const at = document.activeElement
              if (at && at !== document.body && !at.closest('[role="menu"]')) event.preventDefault()
            }}
            className="z-40 max-h-[70vh] min-w-52 overflow-y-auto rounded-control border border-cement-300 bg-surface p-1 shadow-lg"
          >
            {children}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </MenuContext>
  )
}
