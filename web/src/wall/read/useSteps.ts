import { useEffect, useRef } from 'react'
import { type NavigateOptions, type To, useLocation, useNavigate, useNavigationType } from 'react-router'

/** How a step of the history came to be: by laying something on the desk; or it is left over since the desk was closed. */
interface StepState {
  step?: 'desk' | 'spare'
}

const stateNow = (): StepState => (window.history.state?.usr as StepState | null) ?? {}

/**
 * Steps of the history, so that *Back* closes the desk. Closing it otherwise leaves a step over, since going back takes a moment
 * in which another key may be pressed: the next step takes its place, and who comes back to it is led one further.
 */
export function useSteps() {
  const navigate = useNavigate()
  const location = useLocation()
  const came = useNavigationType()
  const before = useRef({ key: location.key, path: '' })
  const path = location.pathname + location.search
  useEffect(() => {
    const isSame = before.current.key !== location.key && before.current.path === path
    before.current = { key: location.key, path }
    if (came === 'POP' && isSame) navigate(-1)
  }, [came, path, location.key, navigate])

  return Object.assign(
    (to: To, how: NavigateOptions = {}) =>
      void navigate(to, { ...how, replace: how.replace ?? stateNow().step === 'spare' }),
    {
      /** Lays something on an empty desk. */
      open: (to: To) => void navigate(to, { state: { step: 'desk' }, replace: stateNow().step === 'spare' }),
      /** Lays something else there, or nothing. */
      turn: (to: To, isClosing: boolean) => {
        const { step } = stateNow()
        void navigate(to, {
          replace: true,
          state: { step: step === 'desk' && isClosing ? 'spare' : step } satisfies StepState,
        })
      },
    },
  )
}
