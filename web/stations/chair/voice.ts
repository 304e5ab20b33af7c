/** Spoken prompts by the browser's own voice, and a screen that stays awake. Both only where the browser has them. */
import { useEffect } from 'react'
import { create } from 'zustand'
import { persist } from 'zustand/middleware'

export const canSpeak = 'speechSynthesis' in window

/** Off until it is switched on; remembered on this screen. */
export const useVoice = create<{ on: boolean; toggle: () => void }>()(
  persist((set, get) => ({ on: false, toggle: () => set({ on: !get().on }) }), {
    name: 'slow-tide-voice',
  }),
)

/** Speaks a text when it changes; a new one cuts off the one before. */
export function useSpoken(text: string): void {
  const on = useVoice((s) => s.on)
  useEffect(() => {
    if (!on || !canSpeak || !text) return
    const said = new SpeechSynthesisUtterance(text)
    said.lang = 'en'
    said.rate = 0.95
    window.speechSynthesis.cancel()
    window.speechSynthesis.speak(said)
    return () => window.speechSynthesis.cancel()
  }, [text, on])
}

/** Keeps the screen lit while it is true. A lock is lost when the tab is hidden and taken again when it is back. */
export function useAwake(awake: boolean): void {
  useEffect(() => {
    if (!awake || !('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | undefined
    let over = false
    const take = async () => {
      if (document.visibilityState !== 'visible') return
      try {
        const got = await navigator.wakeLock.request('screen')
        if (over) void got.release()
        else lock = got
      } catch {
        // Low battery or not allowed: the screen's own setting counts.
      }
    }
    void take()
    const again = () => void take()
    document.addEventListener('visibilitychange', again)
    return () => {
      over = true
      document.removeEventListener('visibilitychange', again)
      void lock?.release()
    }
  }, [awake])
}
