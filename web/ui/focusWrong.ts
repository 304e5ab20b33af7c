/** The first field that cannot be kept as it is: the hand goes there. */
import type { FormErrors, UseFormReturnType } from '@mantine/form'

/** For the second argument of `form.onSubmit`. */
export const focusWrong =
  <V>(form: UseFormReturnType<V>) =>
  (errors: FormErrors): void => {
    const [first] = Object.keys(errors)
    if (first !== undefined) form.getInputNode(first as never)?.focus()
  }
