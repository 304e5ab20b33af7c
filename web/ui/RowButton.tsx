/** The words of a table's row, which choose it. */
import { UnstyledButton, type UnstyledButtonProps } from '@mantine/core'
import css from './RowButton.module.css'

export const RowButton = (
  props: UnstyledButtonProps & React.ComponentPropsWithoutRef<'button'>,
) => <UnstyledButton {...props} className={css.words} />
