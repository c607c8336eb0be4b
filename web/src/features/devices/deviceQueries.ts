import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type Device = Schema['DevicesBody']
export type DeviceWish = Schema['DevicesDeviceBody']
export type MadeDevice = Schema['DevicesMadeBody']

export const devicesQuery = queryOptions({
  queryKey: ['devices'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/devices', { signal })),
})

export const putDevice = (deviceId: string, body: DeviceWish) =>
  unwrap(api.PUT('/api/devices/{deviceId}', { params: { path: { deviceId } }, body }))

export const endDevice = (deviceId: string) =>
  unwrap(api.DELETE('/api/devices/{deviceId}', { params: { path: { deviceId } } }))
