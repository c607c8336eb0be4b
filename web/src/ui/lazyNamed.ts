import { type ComponentType, type LazyExoticComponent, lazy, type ReactNode } from 'react'

type PropsOf<T> = T extends (props: infer P) => ReactNode ? P : never

/** A component that is loaded when it is shown first, by its name in its module. */
export const lazyNamed = <M, K extends keyof M>(
  load: () => Promise<M>,
  name: K,
): LazyExoticComponent<ComponentType<PropsOf<M[K]>>> =>
  lazy(() => load().then((module) => ({ default: module[name] as ComponentType<PropsOf<M[K]>> })))
