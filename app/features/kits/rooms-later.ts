import { ctx } from 'expo-router/_ctx'

/** Where kits lead to: what is around every place, the Board, and the first place of a kit that is new. */
const ROOMS = ['_layout', 'board', 'gather'].map((room) => `./kit/[kitId]/${room}.tsx`)

/** Fetches the scripts of the places that a kit opens in, so that a tap finds them here; not on a line that is to be spared. */
export function fetchRooms(): void {
  const { connection } = navigator as { readonly connection?: { readonly saveData?: boolean } }
  if (connection?.saveData) return
  for (const room of ROOMS) void Promise.resolve(ctx(room)).catch(() => undefined) // it is asked for again as it is opened
}
