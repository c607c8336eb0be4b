import type { DropdownMenu } from 'radix-ui'
import { createContext } from 'react'

export type MenuParts = Pick<typeof DropdownMenu, 'Item' | 'Label' | 'Separator'>

/** What a menu is made of; it comes with the first menu that is opened, so that nobody waits for it before. */
export const MenuContext = createContext<MenuParts | null>(null)
