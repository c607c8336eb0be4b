import { useIsFetching, useQuery } from '@tanstack/react-query'
import { ChevronDown, Inbox } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { inboxQuery } from '../model/inboxQuery'
import { useReader } from '../reader/person'
import { signOut } from '../reader/session'
import { chooseTheme, chosenTheme, themes } from '../reader/theme'
import { toMain } from '../ui/keptFocus'
import { Logo } from '../ui/Logo'
import { Menu, MenuItem, MenuLabel, MenuLine } from '../ui/Menu'
import { useActs } from '../undo/acts'
import { useUnseenClashes } from './useClashes'

/** The bar over everything: where one is, the inbox, oneself. What belongs to a page is laid in by it. */
export function TopBar({ children }: { children?: ReactNode }) {
  const { person, demo } = useReader()
  const inbox = useQuery(inboxQuery)
  const acts = useActs()
  const navigate = useNavigate()
  const [theme, setTheme] = useState(chosenTheme)
  // Not before what the page itself is about is there.
  const isQuiet = useIsFetching({ predicate: (query) => query.queryKey[0] !== 'clashes' }) === 0
  const clashes = useUnseenClashes(isQuiet)
  const unread = (inbox.data?.unread ?? 0) + clashes.length

  const leave = () => signOut().then(() => window.location.assign('/'), acts.failed)
  return (
    <header className="flex min-h-12 flex-wrap items-center gap-x-3 gap-y-1 bg-bar max-sm:gap-x-1.5 px-4 py-1.5 text-on-bar max-sm:px-2">
      <button type="button" className="skip" onClick={toMain}>
        Skip the bar
      </button>
      <Link
        to="/"
        aria-label="Mortar: the wall"
        className="flex items-center gap-2.5 font-head text-xl font-bold"
      >
        <Logo />
        <span className="max-sm:sr-only">Mortar</span>
      </Link>
      {children}
      <div className="ml-auto flex items-center gap-2 max-sm:gap-1.5">
        <Link
          to="/inbox"
          data-unread={unread > 0}
          className="flex items-center gap-1 rounded-control border border-on-bar/40 px-3 py-1 font-bold max-sm:px-2 data-[unread=true]:bg-on-bar data-[unread=true]:text-bar"
        >
          <Inbox size={18} aria-hidden="true" className="sm:hidden" />
          <span className="max-sm:sr-only">Inbox</span>
          {unread > 0 && ` ${unread}`}
        </Link>
        <Menu
          trigger={
            <button
              type="button"
              className="flex items-center gap-1 rounded-control border border-on-bar/40 px-3 py-1 max-sm:px-2"
            >
              <span className="written max-w-40 truncate max-2xl:sr-only">{person.name}</span>
              <span aria-hidden="true" className="font-bold 2xl:hidden">
                {initials(person.name)}
              </span>
              <ChevronDown size={14} aria-hidden="true" />
            </button>
          }
        >
          <MenuLabel>{person.address ?? `${person.unconfirmed}, not confirmed yet`}</MenuLabel>
          <MenuLabel>Times are on the clock of {person.zone}</MenuLabel>
          <MenuLine />
          {themes.map((one) => (
            <MenuItem
              key={one.value}
              onSelect={() => {
                chooseTheme(one.value)
                setTheme(one.value)
              }}
            >
              {theme === one.value ? '● ' : '○ '}
              {one.label}
            </MenuItem>
          ))}
          <MenuLine />
          <MenuItem onSelect={() => navigate('/history')}>What I did</MenuItem>
          <MenuItem onSelect={() => navigate('/preferences')}>Preferences</MenuItem>
          {demo && <MenuItem onSelect={() => navigate('/post-room')}>Post room</MenuItem>}
          <MenuItem onSelect={leave}>Sign out</MenuItem>
        </Menu>
      </div>
    </header>
  )
}

/** The first letters of the first and the last name. */
const initials = (name: string): string => {
  const names = name.split(' ')
  return [...new Set([names[0], names.at(-1)])].map((one) => one?.[0] ?? '').join('')
}
