/** Somebody's figures or a passphrase: as they are, or as they shall be. */
import { PasswordInput, type PasswordInputProps } from '@mantine/core'

export const SecretField = ({ now = false, ...rest }: PasswordInputProps & { now?: boolean }) => (
  <PasswordInput
    maxLength={200}
    autoComplete={now ? 'current-password' : 'new-password'}
    {...rest}
  />
)
