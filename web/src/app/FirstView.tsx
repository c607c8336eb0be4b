import { useQuery } from '@tanstack/react-query'
import { Navigate } from 'react-router'
import { shelfQuery } from '../model/shelfQuery'
import { useNarrow } from '../ui/useNarrow'
import { isViewKept, lastView } from '../wall/read/lastView'

/** To the view this device showed last. On a phone somebody who only reads begins with a list, everybody else with the roster. */
export function FirstView() {
  const isNarrow = useNarrow()
  const shelf = useQuery({ ...shelfQuery, enabled: isNarrow && !isViewKept() })
  if (!isNarrow || isViewKept() || shelf.isError) return <Navigate to={`/${lastView()}`} replace />
  if (!shelf.data) return null
  const writes = shelf.data.some((layer) => layer.groupId !== null && layer.may.add)
  return <Navigate to={writes ? `/${lastView()}` : '/agenda'} replace />
}
