/** Find a client from anywhere: type, arrow, Enter. */
import { Modal, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { SERVICES } from '../../core/services/index.ts'
import { useClients } from '../api/queries.ts'

const SHOWN = 8

export function Find({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title="Find a client"
      size="md"
      yOffset={90}
      transitionProps={{ duration: 0 }}
    >
      {opened && <FindBody onClose={onClose} />}
    </Modal>
  )
}

function FindBody({ onClose }: { onClose: () => void }) {
  const [words, setWords] = useState('')
  const [at, setAt] = useState(0)
  const navigate = useNavigate()
  const found = (useClients(words, 'name').data?.pages[0]?.rows ?? []).slice(0, SHOWN)
  const go = (id: string) => {
    onClose()
    void navigate(`/clients/${id}/ask`)
  }
  return (
    <>
      <TextInput
        data-autofocus
        autoFocus
        aria-label="Name or occupation"
        placeholder="Name or occupation"
        value={words}
        onChange={(e) => {
          setWords(e.currentTarget.value)
          setAt(0)
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setAt(Math.min(at + 1, found.length - 1))
          if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0))
          if (e.key === 'Enter' && found[at]) go(found[at].id)
        }}
      />
      <ul className="find-list">
        {found.map((c, i) => (
          <li key={c.id}>
            <button aria-current={i === at} onClick={() => go(c.id)} onMouseEnter={() => setAt(i)}>
              <b>{c.name}</b>
              <span>{[c.occupation, SERVICES[c.service].name].filter(Boolean).join(' · ')}</span>
            </button>
          </li>
        ))}
        {found.length === 0 && <li className="empty">Nobody of that name.</li>}
      </ul>
    </>
  )
}
