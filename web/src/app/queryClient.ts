import { QueryClient } from '@tanstack/react-query'
import { ProblemError } from '../api/problem'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 60_000,
      retry: (failures, error) => !(error instanceof ProblemError) && failures < 2,
    },
  },
})
