/** The form for a new client: opened from any page. */
import { create } from 'zustand'

export const useAdding = create<{ readonly opened: boolean }>(() => ({ opened: false }))
export const addClient = () => useAdding.setState({ opened: true })
export const endAdding = () => useAdding.setState({ opened: false })
