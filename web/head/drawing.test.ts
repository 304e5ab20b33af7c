import { isSoftware } from './drawing.ts'

// What drivers call themselves, from memory.
it.each([
  [
    'ANGLE (Google, Vulkan 1.3.0 (SwiftShader Device (Subzero) (0x0000C0DE)), SwiftShader driver)',
    true,
  ],
  ['llvmpipe (LLVM 15.0.7, 256 bits)', true],
  ['Microsoft Basic Render Driver', true],
  ['ANGLE (Intel, Mesa Intel(R) UHD Graphics 620 (KBL GT2), OpenGL 4.6)', false],
  ['Mali-G57 MC2', false],
  ['', false],
])('%s draws in a card’s place: %s', (name, software) => {
  expect(isSoftware(name)).toBe(software)
})
