import { ChevronDown } from 'lucide-react'
import { useNavigate } from 'react-router'
import type { Schema } from '../../api/client'
import { Menu, MenuItem, MenuLabel, MenuLine } from '../../ui/Menu'

type Group = Schema['GroupsGroupBody']

interface GroupMenuProps {
  groups: readonly Group[]
  open: Group | undefined
  onOpen: (groupId: string) => void
  onNewCalendar: () => void
  onNewGroup: () => void
  onAsk: () => void
}

/** The group one is at work in, the others, and what can be made. */
export function GroupMenu({ groups, open, onOpen, onNewCalendar, onNewGroup, onAsk }: GroupMenuProps) {
  const navigate = useNavigate()
  const resting = groups.filter((group) => group.restsSince !== null)
  const item = (group: Group) => (
    <MenuItem key={group.id} onSelect={() => onOpen(group.id)}>
      <span className="written">
        {group.id === open?.id ? '● ' : '○ '}
        {group.name}
      </span>
    </MenuItem>
  )
  return (
    <Menu
      trigger={
        <button
          type="button"
          className="flex items-center gap-1.5 rounded-control border border-on-bar/40 px-3 py-1"
        >
          <span className="written max-w-44 truncate max-sm:max-w-20">{open?.name ?? 'Groups'}</span>
          <ChevronDown size={14} aria-hidden="true" />
        </button>
      }
    >
      <MenuLabel>Your groups</MenuLabel>
      {groups.filter((group) => group.restsSince === null).map(item)}
      {resting.length > 0 && <MenuLabel>At rest</MenuLabel>}
      {resting.map(item)}
      <MenuLine />
      {open && (
        <MenuItem onSelect={() => navigate(`/groups/${open.id}/people`)}>People in {open.name}</MenuItem>
      )}
      {open && (
        <MenuItem onSelect={() => navigate(`/groups/${open.id}/access`)}>Access in {open.name}</MenuItem>
      )}
      {open && (
        <MenuItem onSelect={() => navigate(`/groups/${open.id}/noticeboards`)}>
          Noticeboards of {open.name}
        </MenuItem>
      )}
      {open && (
        <MenuItem onSelect={() => navigate(`/print?group=${open.id}&at=${window.location.pathname}`)}>
          Print
        </MenuItem>
      )}
      {open && <MenuItem onSelect={() => navigate(`/spreadsheet?group=${open.id}`)}>Take along</MenuItem>}
      {open && (
        <MenuItem onSelect={() => navigate(`/groups/${open.id}/history`)}>History of {open.name}</MenuItem>
      )}
      {open && <MenuItem onSelect={() => navigate(`/groups/${open.id}`)}>Settings of {open.name}</MenuItem>}
      {open && open.restsSince === null && (
        <MenuItem onSelect={onNewCalendar}>New calendar in {open.name}</MenuItem>
      )}
      <MenuItem onSelect={onNewGroup}>New group</MenuItem>
      <MenuItem onSelect={onAsk}>Ask somebody for a calendar</MenuItem>
      <MenuItem onSelect={() => navigate('/bin')}>Bin</MenuItem>
    </Menu>
  )
}
