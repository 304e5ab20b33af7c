// Files, the database and pictures share these: with the usual four a paper that is made holds up a tap at the chair.
process.env['UV_THREADPOOL_SIZE'] ??= '12'

/** Slow Tide: `node main.js [serve] [--demo] [--fresh]`, or one of its commands on a data folder. */

const COMMANDS: Readonly<
  Record<string, () => Promise<(args: readonly string[]) => Promise<void>>>
> = {
  serve: async () => (await import('./serve.ts')).serve,
  backup: async () => (await import('./safety/commands.ts')).backupCommand,
  prove: async () => (await import('./safety/commands.ts')).proveCommand,
  restore: async () => (await import('./safety/commands.ts')).restoreCommand,
  verify: async () => (await import('./safety/commands.ts')).verifyCommand,
  rebuild: async () => (await import('./safety/commands.ts')).rebuildCommand,
  'new-secret': async () => (await import('./safety/commands.ts')).newSecretCommand,
  rescue: async () => (await import('./safety/commands.ts')).rescueCommand,
}

export {}

const [first = 'serve', ...rest] = process.argv.slice(2)
const [name, args] = Object.hasOwn(COMMANDS, first) ? [first, rest] : ['serve', [first, ...rest]]
try {
  const command = await COMMANDS[name]!()
  await command(args)
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  process.exit(1)
}
