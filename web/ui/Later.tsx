/** What is not needed for the first picture of a page: questions before what cannot be undone, and what is told for a moment. */
import { ModalsProvider } from '@mantine/modals'
import { NoticeBoard } from './NoticeBoard.tsx'

export function Later() {
  return (
    <>
      <ModalsProvider modalProps={{ centered: true }} />
      <NoticeBoard />
    </>
  )
}
